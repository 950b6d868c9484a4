package dev.paseo.service.notice;

import java.util.Locale;

/** What people are told about, and how where they have not chosen. */
public enum NoticeKind {
    WAITS("something waits for you", Delivery.NOW, Delivery.NOW),
    VOIDED("what you approved no longer counts", Delivery.NOW, Delivery.NOW),
    EXPIRES("something that waits for you is about to expire", Delivery.NOW, Delivery.NOW),
    NOBODY("something waits, and nobody may decide it", Delivery.NOW, Delivery.NOW),
    DECIDED("what you asked for was decided", Delivery.NOW, Delivery.OFF),
    RUN_FAILED("your run failed", Delivery.NOW, Delivery.NOW),
    RUN_MENDED("your branch is mended", Delivery.NOW, Delivery.OFF),
    DEPLOYMENT_FAILED("a deployment of yours failed, was undone or stopped", Delivery.NOW, Delivery.NOW),
    COMMIT_LIVE("your commit is live in the last environment of its route", Delivery.NOW, Delivery.OFF),
    STAYS("a version does not go on by itself: something is missing, or a test of it failed", Delivery.NOW,
            Delivery.NOW),
    PREVIEW("your preview is ready, or was removed", Delivery.NOW, Delivery.NOW),
    LOOSENED("something went live under rules that were loosened within a day", Delivery.NOW, Delivery.NOW),
    NEARLY_FULL("a component has nearly all kept that it may", Delivery.NOW, Delivery.NOW),
    FOLLOWED("a deployment of what you follow ended, or a run of it failed or passed again", Delivery.NOW,
            Delivery.OFF),
    DAMAGED("kept bytes are damaged", Delivery.NOW, Delivery.NOW);

    /** How soon; a gathered one comes with others in one mail. */
    public enum Delivery {
        NOW, HOURLY, DAILY, OFF;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private final String words;
    private final Delivery console;
    private final Delivery mail;

    NoticeKind(String words, Delivery console, Delivery mail) {
        this.words = words;
        this.console = console;
        this.mail = mail;
    }

    /** As it is written: {@code run-failed}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public String words() {
        return words;
    }

    Delivery delivery(String channel) {
        return channel.equals("mail") ? mail : console;
    }
}

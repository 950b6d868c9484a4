package dev.paseo.service.notice;

import java.util.ArrayList;
import dev.paseo.service.engine.DueWork;
import dev.paseo.service.change.Changes;
import dev.paseo.service.notice.NoticeMapper.NoticeRow;
import dev.paseo.service.settings.Settings;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;

/**
 * Sends what is due by mail, as HTML and as plain text; several that are due together come in one. A server that is
 * away is tried again, at growing intervals, for two days.
 */
@Component
class Mails implements DueWork.Ways<Mails.Batch> {

    private static final Logger LOG = LoggerFactory.getLogger(Mails.class);
    private static final int MOST_TRIES = 40;
    /** So many readers at once: a mail server that does not answer holds no more. */
    private static final int AT_ONCE = 4;

    private final NoticeMapper mapper;
    private final ObjectProvider<JavaMailSender> sender;
    private final MailLinks links;
    private final Settings settings;
    private final Changes changes;
    private final WhatChanges whatChanges;
    private final DueWork<Batch> work = new DueWork<>("mails", AT_ONCE, this);

    Mails(NoticeMapper mapper, ObjectProvider<JavaMailSender> sender, MailLinks links, Settings settings,
            Changes changes, WhatChanges whatChanges) {
        this.mapper = mapper;
        this.sender = sender;
        this.links = links;
        this.settings = settings;
        this.changes = changes;
        this.whatChanges = whatChanges;
    }

    @Scheduled(fixedDelay = 1000)
    void sendDue() {
        if (sender.getIfAvailable() == null) {
            return;
        }
        try {
            work.take(changes.now());
        } catch (RuntimeException failed) {
            LOG.warn("mails wait for the moment: {}", failed.toString());
        }
    }

    /** What is due for one reader, and goes to them together; {@code taken} once it was claimed. */
    record Batch(long account, List<NoticeRow> taken) {}

    @Override
    public List<Batch> due(Instant now) {
        return mapper.due(now).stream().map(account -> new Batch(account, new ArrayList<>())).toList();
    }

    @Override
    public boolean claim(Batch batch, Instant now) {
        batch.taken().addAll(changes.in(() -> {
            List<NoticeRow> rows = mapper.dueOf(batch.account(), now);
            rows.forEach(row -> mapper.claim(row.id(), now.plus(pause(row.tries()))));
            return rows;
        }));
        return !batch.taken().isEmpty();
    }

    /** A notice with the link for its reader, and what changes with it. */
    private record Linked(NoticeRow notice, String address, List<String> changes) {

        String body() {
            return notice.body()
                    + changes.stream().map(line -> "\nWhat changes: " + line).collect(Collectors.joining());
        }
    }

    @Override
    public void perform(Batch batch) {
        long account = batch.account();
        Optional<String> to = mapper.address(account);
        batch.taken().stream().filter(each -> to.isEmpty() || each.tries() >= MOST_TRIES)
                .forEach(each -> mapper.givenUp(each.id()));
        List<Linked> sent = batch.taken().stream().filter(each -> to.isPresent() && each.tries() < MOST_TRIES)
                .map(each -> new Linked(each, links.address(account, each.path()), changes(each))).toList();
        if (sent.isEmpty()) {
            return;
        }
        JavaMailSender mail = sender.getObject();
        try {
            mail.send(message(mail, to.orElseThrow(), mapper.name(account), sent));
            sent.forEach(each -> mapper.mailed(each.notice().id(), changes.now()));
        } catch (MailException | MessagingException failed) {
            LOG.warn("{} mails to {} wait and are tried again: {}", sent.size(), mapper.name(account),
                    failed.getMessage());
        }
    }

    /** Only beside a question; and a mail goes out without it rather than not at all. */
    private List<String> changes(NoticeRow notice) {
        if (!notice.event().equals(NoticeKind.WAITS.word())) {
            return List.of();
        }
        try {
            return whatChanges.at(notice.path());
        } catch (RuntimeException failed) {
            LOG.warn("a mail goes out without what changes with {}: {}", notice.path(), failed.toString());
            return List.of();
        }
    }

    /** Half a minute first, at most an hour. */
    private static Duration pause(int tries) {
        return DueWork.pause(Duration.ofSeconds(30), tries, Duration.ofHours(1));
    }

    private MimeMessage message(JavaMailSender mail, String to, String name, List<Linked> due)
            throws MessagingException {
        MimeMessage message = mail.createMimeMessage();
        MimeMessageHelper helper = new MimeMessageHelper(message, true, "UTF-8");
        helper.setFrom(settings.mailFrom());
        helper.setTo(to);
        helper.setSubject(due.size() == 1 ? due.getFirst().notice().title()
                : due.size() + " things from Paseo, the newest: " + due.getLast().notice().title());
        helper.setText(plain(name, due), html(name, due));
        message.setHeader("Auto-Submitted", "auto-generated");
        return message;
    }

    private static String plain(String name, List<Linked> due) {
        return "Hello " + name + ",\n\n"
                + due.stream()
                        .map(each -> each.notice().title() + "\n\n" + each.body() + "\n\nLook at it, and decide there: "
                                + each.address() + "\n")
                        .collect(Collectors.joining("\n----\n\n"))
                + "\nThe link is for you alone, works once, and decides nothing by itself.\n";
    }

    private static String html(String name, List<Linked> due) {
        String parts = due.stream()
                .map(each -> """
                <tr><td style="padding:20px 24px;border:1px solid #d9d6cf;border-radius:10px;background:#ffffff">
                <p style="margin:0 0 10px;font-size:18px;line-height:25px;font-weight:650;color:#1d2a33">%s</p>
                %s
                <p style="margin:18px 0 2px"><a href="%s" style="display:inline-block;padding:10px \
                18px;border-radius:8px;background:#14505c;color:#ffffff;text-decoration:none;font-weight:600">Look at \
                it</a></p>
                </td></tr><tr><td style="height:12px"></td></tr>""".formatted(
                        HtmlUtils.htmlEscape(each.notice().title()), paragraphs(each.body()), each.address()))
                .collect(Collectors.joining("\n"));
        return """
                <!doctype html><html lang="en"><head><meta charset="utf-8"><title>Paseo</title></head>
                <body style="margin:0;padding:24px;background:#f3f1ec;font-family:'Segoe \
                UI',Helvetica,Arial,sans-serif;font-size:15px;line-height:22px;color:#33424c">
                <table role="presentation" width="100%%" style="max-width:600px;margin:0 auto;border-collapse:separate">
                <tr><td style="padding:0 4px 14px;color:#55646e">Hello %s,</td></tr>
                %s
                <tr><td style="padding:2px 4px;font-size:13px;line-height:19px;color:#5f6d76">The link is for you \
                alone, works once, and decides nothing by itself.
                What you are told about is chosen on the page Waiting.</td></tr></table></body></html>
                """.formatted(HtmlUtils.htmlEscape(name), parts);
    }

    private static String paragraphs(String body) {
        return body.lines()
                .map(line -> line.isBlank() ? "" : "<p style=\"margin:0 0 6px\">" + HtmlUtils.htmlEscape(line) + "</p>")
                .collect(Collectors.joining("\n"));
    }
}

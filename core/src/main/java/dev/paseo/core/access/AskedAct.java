package dev.paseo.core.access;

import java.util.Optional;

/** What somebody who may not do it oneself asks of those who may, for a component in an environment. */
public enum AskedAct {
    PROMOTE(Action.PROMOTE, "promote %s %s into %s"),
    ROLL_BACK(Action.ROLL_BACK, "roll back %s in %3$s"),
    HOLD(Action.PROMOTE, "hold %s in %3$s"),
    LIFT_HOLD(Action.PROMOTE, "lift the hold of %s in %3$s");

    private final Action action;
    private final String words;

    AskedAct(Action action, String words) {
        this.action = action;
        this.words = words;
    }

    /** What one may who may do it. */
    public Action action() {
        return action;
    }

    /** Whether it is done with a version that is named. */
    public boolean ofVersion() {
        return this == PROMOTE;
    }

    /** As it completes "asks to ...". */
    public String sentence(String component, Optional<String> version, String environment) {
        return words.formatted(component, version.orElse(""), environment);
    }
}

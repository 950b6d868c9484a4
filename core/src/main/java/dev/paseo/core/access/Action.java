package dev.paseo.core.access;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What a person may want to do. */
public enum Action {
    LOOK("see components, runs, versions, deployments and the audit trail"),
    START_RUN("start and cancel runs"),
    EDIT_PIPELINE("commit pipeline files through the service"),
    EDIT_TRUSTED("commit pipeline files to trusted branches through the service"),
    PUBLISH("publish versions that were built elsewhere"),
    ADD_EVIDENCE("add evidence to versions that are sealed"),
    PROMOTE("request and cancel deployments"),
    ROLL_BACK("roll back what is live"),
    EMERGENCY("start deployments past unmet criteria, a hold or a closed environment, with a reason"),
    LIFT_BLOCK("lift the block of a version"),
    DECIDE("approve or reject where the gate asks for it"),
    VERIFY_AUDIT("verify the audit trail"),
    REGISTER_COMPONENT("register components"),
    EDIT_ENVIRONMENT("load environments and their rules"),
    SET_SECRET("set values of secrets"),
    ENROL_AGENT("enrol agents"),
    TELL_OTHERS("name receivers of events and see what they were told"),
    READ_METRICS("read the service's metrics"),
    MANAGE_ACCOUNTS("add and change accounts, groups, roles and tokens of others");

    private final String words;

    Action(String words) {
        this.words = words;
    }

    /** Its name as people write it: {@code roll-back}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<Action> named(String word) {
        return Arrays.stream(values()).filter(action -> action.word().equals(word)).findFirst();
    }

    /** What it allows, as it completes "may ...". */
    public String words() {
        return words;
    }
}

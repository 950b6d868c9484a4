package dev.paseo.core.access;

import java.util.List;
import java.util.Arrays;
import static dev.paseo.core.access.Action.*;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** The roles, as one table of permissions. */
public enum Role {
    VIEWER(EnumSet.of(LOOK)),
    DEVELOPER(EnumSet.of(LOOK, START_RUN, EDIT_PIPELINE)),
    TESTER(EnumSet.of(LOOK, DECIDE, ADD_EVIDENCE)),
    APPROVER(EnumSet.of(LOOK, DECIDE)),
    PUBLISHER(EnumSet.of(PUBLISH, ADD_EVIDENCE)),
    RELEASE_ENGINEER(EnumSet.of(LOOK, READ_METRICS, START_RUN, EDIT_PIPELINE, EDIT_TRUSTED, PUBLISH, PROMOTE, ROLL_BACK,
            ADD_EVIDENCE, DECIDE, REGISTER_COMPONENT)),
    OPERATOR(EnumSet.of(LOOK, READ_METRICS, PROMOTE, ROLL_BACK, EMERGENCY, EDIT_ENVIRONMENT, SET_SECRET, ENROL_AGENT,
            TELL_OTHERS)),
    AUDITOR(EnumSet.of(LOOK, READ_METRICS, VERIFY_AUDIT)),
    ADMINISTRATOR(EnumSet.allOf(Action.class));

    private final Set<Action> actions;

    Role(Set<Action> actions) {
        this.actions = actions;
    }

    public boolean allows(Action action) {
        return actions.contains(action);
    }

    /** The roles that allow an action, as a sentence names them: {@code developer or release-engineer}. */
    public static String allowing(Action action) {
        List<String> words = Arrays.stream(values()).filter(role -> role != ADMINISTRATOR && role.allows(action))
                .map(Role::word).toList();
        return words.isEmpty() ? ADMINISTRATOR.word()
                : words.size() == 1 ? words.getFirst()
                        : String.join(", ", words.subList(0, words.size() - 1)) + " or " + words.getLast();
    }

    /** Its name as people write it: {@code release-engineer}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static java.util.Optional<Role> named(String word) {
        return Arrays.stream(values()).filter(role -> role.word().equals(word)).findFirst();
    }
}

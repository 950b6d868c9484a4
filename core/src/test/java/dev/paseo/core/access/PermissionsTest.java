package dev.paseo.core.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PermissionsTest {

    @ParameterizedTest
    @CsvSource({
        "DEVELOPER, START_RUN, true", "DEVELOPER, PROMOTE, false", "APPROVER, DECIDE, true", "APPROVER, PROMOTE, false",
        "RELEASE_ENGINEER, PROMOTE, true", "RELEASE_ENGINEER, SET_SECRET, false", "AUDITOR, VERIFY_AUDIT, true", "AUDITOR, START_RUN, false",
        "VIEWER, LOOK, true", "VIEWER, DECIDE, false", "ADMINISTRATOR, MANAGE_ACCOUNTS, true"})
    void theTableOfRoles(Role role, Action action, boolean allowed) {
        Person person = new Person(1, "somebody", Set.of(), List.of(new Grant(role, Optional.empty(), Optional.empty())));
        assertEquals(allowed, person.may(action, Optional.of("daylight-api"), Optional.of("production")));
    }

    @Test
    void aGrantThatIsLimitedCoversNothingOutside() {
        Grant grant = new Grant(Role.RELEASE_ENGINEER, Optional.of("daylight-api"), Optional.of("staging"));
        Person person = new Person(1, "somebody", Set.of(), List.of(grant));
        assertTrue(person.may(Action.PROMOTE, Optional.of("daylight-api"), Optional.of("staging")));
        assertFalse(person.may(Action.PROMOTE, Optional.of("daylight-api"), Optional.of("production")));
        assertFalse(person.may(Action.PROMOTE, Optional.of("path-board"), Optional.of("staging")));
        assertFalse(person.may(Action.PROMOTE, Optional.empty(), Optional.empty()));
        assertTrue(person.mayAnywhere(Action.PROMOTE));
        assertFalse(person.mayAnywhere(Action.SET_SECRET));
    }

    @Test
    void whoHasNoGrantMayNothing() {
        Person nobody = new Person(1, "nobody", Set.of("approvers"), List.of());
        for (Action action : Action.values()) {
            assertFalse(nobody.may(action, Optional.empty(), Optional.empty()));
        }
    }
}

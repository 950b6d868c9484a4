package dev.paseo.core.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PermissionsTest {

    @ParameterizedTest
    @CsvSource({
            "DEVELOPER, START_RUN, true", "DEVELOPER, PROMOTE, false", "APPROVER, DECIDE, true",
            "APPROVER, PROMOTE, false",
            "RELEASE_ENGINEER, PROMOTE, true", "RELEASE_ENGINEER, SET_SECRET, false", "AUDITOR, VERIFY_AUDIT, true",
            "AUDITOR, START_RUN, false",
            "VIEWER, LOOK, true", "VIEWER, DECIDE, false", "ADMINISTRATOR, MANAGE_ACCOUNTS, true"})
    void theTableOfRoles(Role role, Action action, boolean allowed) {
        Person person = new Person(1, "somebody", Set.of(),
                List.of(new Grant(role, Optional.empty(), Optional.empty())));
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
    void aTokenMayNoMoreThanItsScopeAndNoMoreThanItsOwner() {
        Person owner = new Person(1, "somebody", Set.of("approvers"),
                List.of(new Grant(Role.RELEASE_ENGINEER, Optional.empty(), Optional.empty())));
        Person token = owner.within(new Scope(Set.of(Action.PUBLISH, Action.SET_SECRET), Optional.of("hut-planner")));
        assertTrue(token.may(Action.PUBLISH, Optional.of("hut-planner"), Optional.empty()));
        assertFalse(token.may(Action.PUBLISH, Optional.of("path-board"), Optional.empty()));
        assertFalse(token.may(Action.PUBLISH, Optional.empty(), Optional.empty()));
        assertFalse(token.may(Action.PROMOTE, Optional.of("hut-planner"), Optional.empty()),
                "its owner may, the token may not");
        assertFalse(token.may(Action.SET_SECRET, Optional.of("hut-planner"), Optional.empty()),
                "the token may, its owner may not");
        assertFalse(token.mayAnywhere(Action.LOOK));
        assertEquals(Set.of(), token.groups(), "whoever asks their groups does not ask this token");
        assertEquals(Set.of("approvers"), owner.within(new Scope(Set.of(Action.DECIDE), Optional.empty())).groups());
        assertEquals("(for hut-planner alone) publish versions that were built elsewhere; set values of secrets",
                token.scope().orElseThrow().words());
        assertEquals("publish versions that were built elsewhere of hut-planner",
                new Scope(Set.of(Action.PUBLISH), Optional.of("hut-planner")).words());
        assertEquals(Optional.empty(), Scope.of(List.of("everything"), Optional.empty()));
    }

    @ParameterizedTest
    @ValueSource(strings = {"viewer", "approver in production", "release-engineer of daylight-api",
            "operator in staging of daylight-api"})
    void aGrantIsReadOfItsWords(String words) {
        assertEquals(words, Grant.of(words).orElseThrow().words());
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "king", "approver in", "approver of a b", "approver of a in b", "approver  in b",
            "approver in ../x"})
    void whatIsNoGrantIsNone(String words) {
        assertEquals(Optional.empty(), Grant.of(words));
    }

    @ParameterizedTest
    @CsvSource({"4, 0, 0", "5, 0, 1", "5, 1, 0", "6, 0, 2", "8, 3, 5", "12, 0, 30", "1000000, 29, 1", "9, 3601, 0"})
    void whoFailsAgainAndAgainWaits(int failures, long after, long seconds) {
        Instant last = Instant.parse("2026-11-28T09:00:00Z");
        assertEquals(Duration.ofSeconds(seconds),
                new BackOff(failures, last).left(last.plusSeconds(after), 5, Duration.ofSeconds(30)));
        assertEquals(1, new BackOff(failures, last).failed(last.plusSeconds(3601)).failures());
    }

    @Test
    void anAllowanceFillsEvenlyAndTellsHowLong() {
        Allowance allowance = Allowance.full(2, 0);
        allowance = allowance.take(0, 60, 2).take(0, 60, 2);
        assertFalse(allowance.exceeded());
        Allowance beyond = allowance.take(0, 60, 2);
        assertTrue(beyond.exceeded());
        assertEquals(Duration.ofSeconds(1), beyond.pause(60));
        assertEquals(Duration.ofSeconds(20), beyond.pause(3));
        assertFalse(beyond.givenBack().take(1_000_000_000, 60, 2).exceeded(), "a second later one more may come");
        assertEquals(1, Allowance.full(2, 0).take(3_600_000_000_000L, 60, 2).left(), "it never holds more than it may");
    }

    @Test
    void whoHasNoGrantMayNothing() {
        Person nobody = new Person(1, "nobody", Set.of("approvers"), List.of());
        for (Action action : Action.values()) {
            assertFalse(nobody.may(action, Optional.empty(), Optional.empty()));
        }
    }
}

package dev.paseo.service.permission;

import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.core.access.Scope;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class PermissionTest {

    private static final Optional<String> DAYLIGHT = Optional.of("daylight-api");
    private static final Optional<String> PRODUCTION = Optional.of("production");

    private static String refused(Person person) {
        return assertThrows(Refusal.class, () -> Permission.require(person, Action.PROMOTE,
                "hold daylight-api in production", DAYLIGHT, PRODUCTION)).getMessage();
    }

    private static Person may(Role role, Optional<String> environment, Optional<Scope> limit) {
        return new Person(1, "tester", Set.of(), List.of(new Grant(role, Optional.empty(), environment)), limit);
    }

    /** What was tried, who it is for, and how one comes to it. */
    @Test
    void aRefusalNamesWhatWasTried() {
        String said = "tester may not hold daylight-api in production: it takes the role release-engineer or operator "
                + "there, which an administrator gives";
        assertEquals(said, refused(may(Role.TESTER, Optional.empty(), Optional.empty())));
        assertEquals(said, refused(may(Role.OPERATOR, Optional.of("test"), Optional.empty())));
        assertEquals(
                "tester may not hold daylight-api in production: this token may publish versions that were built "
                        + "elsewhere of hut-planner, and nothing else",
                refused(may(Role.PUBLISHER, Optional.empty(),
                        Optional.of(new Scope(Set.of(Action.PUBLISH), Optional.of("hut-planner"))))));
        assertDoesNotThrow(() -> Permission.require(may(Role.OPERATOR, PRODUCTION, Optional.empty()), Action.PROMOTE,
                "hold it", DAYLIGHT, PRODUCTION));
    }
}

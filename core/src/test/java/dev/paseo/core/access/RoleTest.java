package dev.paseo.core.access;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoleTest {

    @ParameterizedTest
    @CsvSource({"EMERGENCY, operator", "ROLL_BACK, release-engineer or operator",
            "DECIDE, 'tester, approver or release-engineer'", "MANAGE_ACCOUNTS, administrator"})
    void whoMayIsNamedByTheRolesThatAllowIt(Action action, String roles) {
        assertEquals(roles, Role.allowing(action));
    }
}

package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class AccountChangesTest {

    private final AtNoon noon = new AtNoon();
    private final AccountMapper mapper = RealDatabase.get().mapper(AccountMapper.class);
    private final Accounts accounts = mock(Accounts.class);
    private final PersonalTokens tokens = mock(PersonalTokens.class);
    private final AccountStates states = mock(AccountStates.class);
    private final AccountStates.OfGroups groups = mock(AccountStates.OfGroups.class);
    private final SettingPasswords passwords = mock(SettingPasswords.class);
    private final Administration administration = new Administration(mapper, accounts, noon.changes, states, groups);
    private final AccountViews views = new AccountViews(RealDatabase.get().mapper(AccountViewMapper.class), accounts,
            noon.clock);
    private final AccountChanges changes = new AccountChanges(mapper, administration, passwords, tokens, views);
    private final GroupChanges groupChanges = new GroupChanges(mapper, administration, views);
    private final String name = Rows.fresh("anna");

    @BeforeEach
    void rows() {
        when(accounts.row(anyString())).thenAnswer(call -> mapper.named(call.getArgument(0)).orElseThrow());
        when(states.text(anyString())).thenReturn("as it is");
        when(groups.text(anyString())).thenReturn("as it is");
        when(passwords.code(any(), anyString())).thenReturn("paseo-code-x");
        RealDatabase.get().change("delete from role_grant where role = 'ADMINISTRATOR'");
        changes.add(account(Rows.fresh("admin"), "administrator"), "setup");
    }

    private static AccountChanges.NewAccount account(String name, String... roles) {
        return new AccountChanges.NewAccount(name, Optional.empty(), List.of(), List.of(), List.of(roles));
    }

    private void change(Optional<List<String>> roles, Optional<List<String>> addresses) {
        changes.change(name, new AccountChanges.AccountChange(roles, Optional.empty(), addresses), "ines");
    }

    @Test
    void aNameIsOneThatAddressesAndFilesCanHave() {
        for (String wrong : List.of("Anna", "", "-anna", "a".repeat(64), "anna frank", "../anna")) {
            Refused.field("/name", () -> changes.add(account(wrong), "ines"));
        }
        changes.add(account(name), "ines");
        assertEquals("There is an account named " + name + " already",
                Refused.by(Kind.CONFLICT, () -> changes.add(account(name), "ines")));
    }

    @Test
    void aRoleIsOneThatIsThereForWhatIsThere() {
        assertEquals("There is no role aprover; did you mean approver?",
                Refused.field("/roles", () -> changes.add(account(name, "aprover"), "ines")));
        Refused.field("/roles", () -> changes.add(account(name, "approver at production"), "ines"));
        Refused.field("/roles", () -> changes.add(account(name, "approver in nowhere-at-all"), "ines"));
        assertTrue(mapper.named(name).isEmpty(), "nothing is left of what was refused");
    }

    @Test
    void anAddressStandsForOne() {
        changes.add(account(name), "ines");
        Refused.field("/addresses", () -> change(Optional.empty(), Optional.of(List.of("no address"))));
        String address = name + "@park.test";
        change(Optional.empty(), Optional.of(List.of(address.toUpperCase(java.util.Locale.ROOT))));
        assertEquals(List.of(address), views.one(name).addresses());
        String other = Rows.fresh("bert");
        assertEquals(address + " belongs to " + name + "; remove it there first", Refused.by(Kind.CONFLICT,
                () -> changes.add(new AccountChanges.NewAccount(other, Optional.empty(), List.of(address), List.of(),
                        List.of()), "ines")));
        assertTrue(mapper.named(other).isEmpty());
    }

    @Test
    void somebodyWhoMayAdministrateIsAlwaysLeft() {
        RealDatabase.get().change("delete from role_grant where role = 'ADMINISTRATOR'");
        changes.add(account(name, "administrator"), "setup");
        String refusal = "This would leave no administrator: give the role to somebody else first";
        assertEquals(refusal, Refused.by(Kind.CONFLICT, () -> change(Optional.of(List.of()), Optional.empty())));
        assertEquals(refusal, Refused.by(Kind.CONFLICT, () -> changes.disable(name, "left", "ines")));
        assertEquals(List.of("administrator"), views.one(name).roles());
        assertTrue(views.one(name).disabled().isEmpty());
    }

    @Test
    void whoIsDisabledLosesSessionsAndTokensAtOnce() {
        changes.add(account(name), "ines");
        assertEquals("Say why the account is disabled",
                Refused.field("/reason", () -> changes.disable(name, " ", "ines")));
        Refused.by(Kind.CONFLICT, () -> changes.disable(name, "left", name));
        long id = mapper.named(name).orElseThrow().id();
        String session = RealDatabase.get().rows().digest();
        mapper.addSession(session, id, Rows.NOON, Rows.NOON.plusSeconds(60));
        changes.disable(name, "left", "ines");
        assertEquals(0, mapper.endSession(session), "it has ended");
        verify(tokens).revokeAll(id, "ines");
        Refused.by(Kind.CONFLICT, () -> changes.disable(name, "left", "ines"));
        Refused.by(Kind.CONFLICT, () -> changes.reset(name, "ines"));
        changes.enable(name, "ines");
        Refused.by(Kind.CONFLICT, () -> changes.enable(name, "ines"));
    }

    @Test
    void whoIsNotInAGroupDoesNotLeaveIt() {
        changes.add(account(name), "ines");
        assertEquals(name + " is not in the group rangers",
                Refused.by(Kind.NOT_FOUND, () -> groupChanges.leave("rangers", name, "ines")));
    }

    @Test
    void whoIsInAGroupHasItsRoles() {
        String rangers = Rows.fresh("rangers");
        changes.add(account(name, "viewer"), "ines");
        groupChanges.join(rangers, name, "ines");
        assertEquals(List.of("approver"), groupChanges.roles(rangers, List.of("approver"), "ines").roles());
        AccountViews.AccountView seen = views.one(name);
        assertEquals(List.of("viewer"), seen.roles());
        assertEquals(List.of("approver by " + rangers), seen.byGroups());
        assertEquals(List.of(rangers), seen.groups());
        assertEquals(List.of(seen), views.all().stream().filter(each -> each.name().equals(name)).toList());
        groupChanges.leave(rangers, name, "ines");
        assertEquals(List.of(), views.one(name).byGroups());
    }

    @Test
    void aGroupThatWouldTakeTheLastAdministratorKeepsItsRole() {
        String keepers = Rows.fresh("keepers");
        RealDatabase.get().change("delete from role_grant where role = 'ADMINISTRATOR'");
        changes.add(account(name), "setup");
        groupChanges.join(keepers, name, "setup");
        groupChanges.roles(keepers, List.of("administrator"), "setup");
        String refusal = "This would leave no administrator: give the role to somebody else first";
        assertEquals(refusal, Refused.by(Kind.CONFLICT, () -> groupChanges.roles(keepers, List.of(), "ines")));
        assertEquals(refusal, Refused.by(Kind.CONFLICT, () -> groupChanges.leave(keepers, name, "ines")));
        assertEquals(List.of("administrator by " + keepers), views.one(name).byGroups());
    }
}

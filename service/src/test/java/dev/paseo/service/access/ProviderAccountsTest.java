package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.anyString;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.ProviderSettings;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ProviderAccountsTest {

    private final AtNoon noon = new AtNoon();
    private final AccountMapper mapper = RealDatabase.get().mapper(AccountMapper.class);
    private final AccountStates states = mock(AccountStates.class);
    private final String name = Rows.fresh("anna");

    private ProviderAccounts accounts(boolean newAccounts) {
        when(states.text(anyString())).thenReturn("as it is");
        return new ProviderAccounts(mapper, new ProviderSettings(Optional.empty(), "", "", "", "", "", newAccounts),
                noon.changes, states);
    }

    private ProviderAccounts.Vouched vouched(String subject, String... groups) {
        return new ProviderAccounts.Vouched(subject, Optional.of(name), Optional.of(name + "@park.test"),
                List.of(groups));
    }

    @Test
    void aNewPersonHasAnAccountOnlyWhereThatIsWanted() {
        assertEquals("There is no account for this person; an administrator has to make one first",
                Refused.by(Kind.NOT_FOUND, () -> accounts(false).of(vouched(name))));
        assertEquals(name, accounts(true).of(vouched(name)).name());
    }

    @Test
    void aNameIsNotTakenFromWhoHasIt() {
        mapper.add(name, "", Rows.NOON);
        Refused.by(Kind.NOT_FOUND, () -> accounts(true).of(vouched("somebody else's")));
    }

    @Test
    void anAddressTiesAnAccountToOnePersonForGood() {
        mapper.add(name, "", Rows.NOON);
        mapper.addAddress(name + "@park.test", mapper.named(name).orElseThrow().id(), Rows.NOON);
        assertEquals(name, accounts(false).of(vouched(name + " of the provider")).name());
        assertEquals(name + " already signs in with another account of the provider",
                Refused.by(Kind.NOT_ALLOWED, () -> accounts(false).of(vouched("another with that address"))));
    }

    @Test
    void whoIsDisabledHereIsNotLetInByTheProvider() {
        long id = accounts(true).of(vouched(name)).id();
        mapper.setDisabled(id, Rows.NOON, "ines", "left");
        Refused.by(Kind.NOT_ALLOWED, () -> accounts(true).of(vouched(name)));
    }

    @Test
    void theProviderGivesAndTakesItsOwnGroupsAlone() {
        String ours = Rows.fresh("rangers");
        String theirs = Rows.fresh("guides");
        long id = accounts(true).of(vouched(name, theirs, "no group\n")).id();
        mapper.addGroup(ours);
        mapper.join(ours, id);
        assertEquals(Set.of(ours, theirs), Set.copyOf(mapper.groupsOf(id)));
        accounts(true).of(vouched(name));
        assertEquals(List.of(ours), mapper.groupsOf(id));
    }
}

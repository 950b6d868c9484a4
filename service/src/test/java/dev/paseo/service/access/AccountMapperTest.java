package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class AccountMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final AccountMapper mapper = database.mapper(AccountMapper.class);
    private final long account = database.rows().account();
    private final String name = database.name("account", account);

    /** Roles of no name that is known would be in the way of whoever lists all. */
    @AfterEach
    void made() {
        database.change("delete from role_grant where role like 'role-%'");
    }

    @Test
    void aSessionEndsInTimeAndWithItsAccount() {
        String hash = database.rows().digest();
        mapper.addSession(hash, account, NOW, NOW.plusSeconds(60));
        assertEquals(account, mapper.ofSession(hash, NOW.plusSeconds(59)).orElseThrow().id());
        assertTrue(mapper.ofSession(hash, NOW.plusSeconds(60)).isEmpty(), "a session ends when it says");
        mapper.setDisabled(account, NOW, "ines", "left");
        assertTrue(mapper.ofSession(hash, NOW).isEmpty(), "who is disabled is not signed in");
    }

    @Test
    void aCodeForAPasswordIsGoodUntilItsTime() {
        String hash = database.rows().digest();
        mapper.addCode(hash, account, "ines", NOW, NOW.plusSeconds(60));
        assertTrue(mapper.ofCode(hash, NOW.plusSeconds(59)).isPresent());
        assertTrue(mapper.ofCode(hash, NOW.plusSeconds(60)).isEmpty());
        mapper.dropCodes(account);
        assertTrue(mapper.ofCode(hash, NOW).isEmpty());
    }

    @Test
    void aRoleIsGivenByOneselfOrByAGroup() {
        String role = Rows.fresh("role");
        String group = Rows.fresh("group");
        mapper.addGroup(group);
        mapper.join(group, account);
        assertEquals(0, mapper.withRole(role));
        mapper.grant(null, group, role, null, null);
        assertEquals(1, mapper.withRole(role));
        assertEquals(List.of(new AccountMapper.MayRow(group, null, null, null),
                new AccountMapper.MayRow(null, role, null, null)), mapper.may(account));
        assertEquals(List.of(), mapper.ownGrants(account), "it is the group's, not theirs");
        mapper.leave(group, account);
        assertEquals(0, mapper.withRole(role));
    }

    @Test
    void aRoleForOneComponentIsNotOneEverywhere() {
        String role = Rows.fresh("role");
        String component = database.name("component", database.rows().component());
        mapper.grant(account, null, role, component, null);
        assertEquals(0, mapper.withRole(role));
        assertEquals(component, mapper.ownGrants(account).getFirst().component());
        assertEquals(List.of(new AccountMapper.MayRow(null, role, component, null)), mapper.may(account));
    }

    @Test
    void aGroupOfTheProviderIsToldFromOneOfOurs() {
        String ours = Rows.fresh("group");
        String theirs = Rows.fresh("group");
        List.of(ours, theirs).forEach(mapper::addGroup);
        mapper.join(ours, account);
        mapper.joinByProvider(theirs, account);
        assertEquals(List.of(theirs), mapper.groupsByProvider(account));
        assertEquals(Set.of(ours, theirs), Set.copyOf(mapper.groupsOf(account)));
        assertEquals(List.of(new AccountMapper.MemberRow(ours, name)), mapper.members(List.of(ours, name)));
        long other = database.rows().account();
        mapper.join(theirs, other);
        assertEquals(Set.of(new AccountMapper.MemberRow(ours, name), new AccountMapper.MemberRow(theirs, name),
                new AccountMapper.MemberRow(theirs, database.name("account", other))),
                Set.copyOf(mapper.members(List.of(ours, theirs))));
    }

    @Test
    void aGroupIsKnownAlsoWhereNobodyInItMaySignIn() {
        String group = Rows.fresh("group");
        mapper.addGroup(group);
        assertEquals(List.of(new AccountMapper.MemberRow(group, null)), mapper.members(List.of(group)));
        mapper.join(group, account);
        mapper.setDisabled(account, NOW, "ines", "left");
        assertEquals(List.of(new AccountMapper.MemberRow(group, null)), mapper.members(List.of(group)));
    }

    @Test
    void addressesOfAccountsAreToldTogether() {
        String address = Rows.fresh("mail") + "@huts.example";
        mapper.addAddress(address, account, NOW);
        assertEquals(List.of(new AccountMapper.AddressRow(address, name)),
                mapper.ofAddresses(List.of("nobody@huts.example", address)));
    }
}

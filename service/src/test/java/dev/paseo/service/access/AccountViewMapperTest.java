package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.access.AccountViewMapper.AddressRow;
import dev.paseo.service.access.AccountViewMapper.GivenRow;
import dev.paseo.service.access.AccountViewMapper.MembershipRow;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class AccountViewMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final AccountViewMapper mapper = database.mapper(AccountViewMapper.class);
    private final AccountMapper accounts = database.mapper(AccountMapper.class);
    private final TokenMapper tokens = database.mapper(TokenMapper.class);
    private final long account = database.rows().account();
    private final String name = database.name("account", account);

    @Test
    void anAccountCountsTheTokensThatAreGood() {
        tokens.add(database.rows().digest(), account, "laptop", null, null, NOW, NOW.plusSeconds(60));
        tokens.add(database.rows().digest(), account, "old", null, null, NOW, NOW.minusSeconds(60));
        accounts.setDisabled(account, NOW, "ines", "left");
        AccountViewMapper.ListedAccountRow row = mapper.accounts(name, NOW).getFirst();
        assertEquals(1, row.tokens());
        assertEquals("left", row.disabledReason());
        assertEquals(List.of(row), mapper.accounts(null, NOW).stream().filter(each -> each.id() == account).toList());
    }

    @Test
    void whatAnAccountHasIsAskedOfItAloneOrOfAll() {
        String group = Rows.fresh("group");
        accounts.addGroup(group);
        accounts.join(group, account);
        accounts.grant(account, null, "VIEWER", null, null);
        accounts.grant(null, group, "APPROVER", null, null);
        accounts.addAddress(name + "@park.test", account, NOW);
        List<MembershipRow> members = List.of(new MembershipRow(group, account, name, false));
        assertEquals(members, mapper.members(name));
        assertEquals(members, mapper.members(null).stream().filter(row -> row.account() == account).toList());
        assertEquals(List.of(new GivenRow(account, null, "VIEWER", null, null)),
                mapper.roles(name).stream().filter(row -> row.account() != null).toList());
        assertEquals(List.of(new GivenRow(null, group, "APPROVER", null, null)),
                mapper.roles(null).stream().filter(row -> group.equals(row.group())).toList());
        assertEquals(List.of(new AddressRow(account, name + "@park.test")), mapper.addresses(name));
        assertEquals(1, mapper.addresses(null).stream().filter(row -> row.account() == account).count());
        assertEquals(1, mapper.groups().stream().filter(group::equals).count());
    }
}

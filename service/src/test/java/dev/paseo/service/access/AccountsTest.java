package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.access.AccountMapper.AddressRow;
import dev.paseo.service.access.AccountMapper.MemberRow;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class AccountsTest {

    private final AccountMapper mapper = mock(AccountMapper.class);
    private final Accounts accounts = new Accounts(mapper);

    @Test
    void aNameMeansTheGroupFirstThenThePerson() {
        when(mapper.members(List.of("leads", "anna", "nobody", "empty"))).thenReturn(
                List.of(new MemberRow("leads", "ben"), new MemberRow("leads", "anna"), new MemberRow("empty", null)));
        when(mapper.names()).thenReturn(List.of("anna", "ben", "empty"));
        assertEquals(Map.of("leads", Set.of("anna", "ben"), "anna", Set.of("anna"), "nobody", Set.of(), "empty",
                Set.of()), accounts.meant(List.of("leads", "anna", "nobody", "empty")));
    }

    @Test
    void wroteIsWhoHasTheAddressOrTheName() {
        when(mapper.ofAddresses(Set.of("anna@huts.example", "ben", "away@huts.example")))
                .thenReturn(List.of(new AddressRow("anna@huts.example", "anna")));
        when(mapper.named("ben")).thenReturn(Optional.of(new AccountRow(2, "ben", "", null)));
        assertEquals(Map.of("Anna@huts.example", "anna", "ben", "ben"),
                accounts.accountsOf(List.of("Anna@huts.example", "ben", "away@huts.example")));
    }

    @Test
    void nothingIsAskedOfNobody() {
        assertEquals(Map.of(), accounts.meant(List.of()));
        assertEquals(Map.of(), accounts.accountsOf(List.of()));
        verifyNoInteractions(mapper);
    }

    @Test
    void whoIsNotThereIsNamedWithWhoIsNear() {
        when(mapper.named("ana")).thenReturn(Optional.empty());
        when(mapper.allNames()).thenReturn(List.of("anna", "ben"));
        assertEquals("There is no account ana; did you mean anna?",
                Refused.by(Kind.NOT_FOUND, () -> accounts.idOf("ana")));
    }
}

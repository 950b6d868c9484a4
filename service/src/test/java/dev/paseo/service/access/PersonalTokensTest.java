package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.core.access.Person;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class PersonalTokensTest {

    private final AtNoon noon = new AtNoon();
    private final TokenMapper mapper = RealDatabase.get().mapper(TokenMapper.class);
    private final Accounts accounts = mock(Accounts.class);
    private final AccountStates states = mock(AccountStates.class);
    private final PersonalTokens tokens = new PersonalTokens(mapper, accounts, noon.changes, states);
    private final long account = RealDatabase.get().rows().account();

    @BeforeEach
    void anna() {
        when(states.text(anyString())).thenReturn("as it is");
        when(accounts.person(anyLong(), anyString())).thenAnswer(
                call -> new Person(call.getArgument(0), call.getArgument(1), Set.of(), List.of()));
    }

    private String make(int days, Optional<String> component, String label, String... may) {
        return tokens.make(account, "anna", new PersonalTokens.Wanted(label, List.of(may), component, days));
    }

    @Test
    void aTokenSaysWhatItMayForWhomAndHowLong() {
        Refused.field("/may", () -> make(30, Optional.empty(), "script", "fly"));
        Refused.field("/may", () -> make(30, Optional.of("daylight-api"), "script"));
        for (int days : new int[]{0, -1, 366}) {
            Refused.field("/days", () -> make(days, Optional.empty(), "script"));
        }
        Refused.field("/description", () -> make(30, Optional.empty(), " "));
        Refused.field("/description", () -> make(30, Optional.empty(), "x".repeat(121)));
        assertEquals(List.of(), mapper.valid(account));
    }

    @Test
    void aTokenForAComponentThatIsGoneLetsNobodyIn() {
        String component = RealDatabase.get().name("component", RealDatabase.get().rows().component());
        String token = make(30, Optional.of(component), "script", "publish");
        assertTrue(tokens.bearer(token).isPresent());
        RealDatabase.get().change("update component set name = ? where name = ?", Rows.fresh("else"), component);
        assertTrue(tokens.bearer(token).isPresent(), "it has another name, and is the same");
        TokenMapper gone = mock(TokenMapper.class);
        when(gone.bearer(anyString(), any())).thenReturn(Optional.of(
                new TokenMapper.BearerRow(1, account, "anna", "publish", 7L, null, Rows.NOON)));
        assertTrue(new PersonalTokens(gone, accounts, noon.changes, states).bearer(token).isEmpty());
    }

    @Test
    void whatIsNotThereIsNotRevoked() {
        assertEquals("anna has no token 0 (paseo token list)",
                Refused.by(Kind.NOT_FOUND, () -> tokens.revoke(account, "anna", 0, "anna")));
    }

    @Test
    void whoHasATokenThatIsNoLongerGoodHearsWhy() {
        String token = make(30, Optional.empty(), "script");
        String owner = RealDatabase.get().name("account", account);
        when(noon.clock.now()).thenReturn(Rows.NOON.plus(Duration.ofDays(31)));
        assertTrue(tokens.whyNot(token).matches("This token of " + owner
                + " expired on 3 Jun 2026 12:00 UTC; sign in again"), tokens.whyNot(token));
        RealDatabase.get().change("update personal_token set revoked_at = ?, revoked_by = 'ines' where account_id = ?",
                Rows.NOON, account);
        assertTrue(tokens.whyNot(token).startsWith("This token of " + owner + " was revoked by ines on 4 May 2026"));
        RealDatabase.get().change("update account set disabled_at = ? where id = ?", Rows.NOON, account);
        assertEquals("The account " + owner + " is disabled; ask an administrator", tokens.whyNot(token));
        assertTrue(tokens.whyNot("paseo-token-of-nobody").startsWith("This token is unknown here"));
    }
}

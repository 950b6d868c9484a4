package dev.paseo.service.loosening;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;

import dev.paseo.core.access.Person;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.ObjectProvider;

class AgreementsTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final WantedMapper mapper = database.mapper(WantedMapper.class);
    private final Accounts accounts = mock(Accounts.class);
    private final Effects effects = mock(Effects.class);
    private final Agreements.Carrier carrier = mock(Agreements.Carrier.class);
    private final Agreements.Hearer hearer = mock(Agreements.Hearer.class);
    private final Agreements agreements = agreements();
    private final Person anna = person();
    private final Person bert = person();

    private Person person() {
        long id = database.rows().account();
        return new Person(id, database.name("account", id), Set.of(), List.of());
    }

    private static <T> ObjectProvider<T> of(T one) {
        return new ObjectProvider<>() {
            @Override
            public Stream<T> stream() {
                return Stream.of(one);
            }
        };
    }

    private Agreements agreements() {
        return new Agreements(mapper, accounts, new Agreements.Around(noon.changes, database.json(), effects),
                of(carrier), of(hearer));
    }

    /** Anna wants it, and Bert is asked. */
    private long wanted() {
        when(accounts.meant(List.of("release-leads"))).thenReturn(
                Map.of("release-leads", Set.of(anna.name(), bert.name())));
        when(accounts.named(anna.name())).thenReturn(anna);
        when(accounts.isActive(anna.id())).thenReturn(true);
        when(carrier.kind()).thenReturn("trust");
        Wanted wanted = new Wanted("trust", List.of("release/* is trusted"), "{}",
                Map.of("production", List.of("release-leads")));
        String said = Refused.by(Kind.WAITS, () -> agreements.ask(wanted, anna));
        assertEquals(said, Refused.by(Kind.WAITS, () -> agreements.ask(wanted, anna)), "asked twice it waits once");
        return Long.parseLong(said.replaceAll(".*paseo loosening show ", ""));
    }

    private void say(long id, Person person, boolean yes, String comment) {
        agreements.say(id, person, yes, comment, agreements.one(id).subject());
    }

    @Test
    void whatNobodyIsAskedAboutDoesNotWait() {
        agreements.ask(new Wanted("trust", List.of("x"), "{}", Map.of()), anna);
        verifyNoInteractions(hearer);
    }

    @Test
    void whoWantsItDoesNotAgreeToItAndNobodyAgreesUnseen() {
        long id = wanted();
        Refused.by(Kind.NOT_ALLOWED, () -> say(id, anna, true, ""));
        Refused.by(Kind.NOT_ALLOWED, () -> say(id, person(), true, ""));
        assertTrue(Refused.by(Kind.CONFLICT, () -> agreements.say(id, bert, true, "", "0".repeat(64)))
                .startsWith("This is not what loosening " + id + " would change"));
        assertEquals("Say why it is refused", Refused.field("/comment", () -> say(id, bert, false, " ")));
        assertEquals("There is no loosening 0", Refused.by(Kind.NOT_FOUND, () -> agreements.one(0)));
        verifyNoInteractions(effects);
    }

    @Test
    void whoWantsItTakesItBackAndNobodyElse() {
        long id = wanted();
        Refused.by(Kind.NOT_ALLOWED, () -> agreements.withdraw(id, bert));
        agreements.withdraw(id, anna);
        assertEquals("Loosening " + id + " no longer waits: it is withdrawn (" + anna.name() + " took it back)",
                Refused.by(Kind.CONFLICT, () -> say(id, bert, true, "")));
        agreements.perform(Long.toString(id));
        verify(carrier, never()).carryOut(anyString(), any(), anyString());
    }

    @Test
    void whatWaitedTooLongIsNotAgreedToAnyMore() {
        long id = wanted();
        String subject = agreements.one(id).subject();
        when(noon.clock.now()).thenReturn(Rows.NOON.plus(Duration.ofDays(30)));
        assertEquals("Loosening " + id + " no longer waits: it is expired",
                Refused.by(Kind.CONFLICT, () -> agreements.say(id, bert, true, "", subject)));
    }

    @Test
    void whatIsAgreedToIsDoneInTheNameOfWhoWantedIt() {
        long id = wanted();
        say(id, bert, true, "fine");
        verify(effects).add(anyString(), anyString(), eq("loosening"), eq(Long.toString(id)));
        agreements.perform(Long.toString(id));
        agreements.perform(Long.toString(id));
        verify(carrier).carryOut("{}", anna, bert.name());
        assertEquals("done", agreements.one(id).status());
    }

    @Test
    void whatCannotBeDoneAnyMoreSaysWhyAndNothingIsChanged() {
        long id = wanted();
        say(id, bert, true, "fine");
        when(accounts.isActive(anna.id())).thenReturn(false);
        agreements.perform(Long.toString(id));
        assertEquals("failed", agreements.one(id).status());
        assertTrue(agreements.one(id).ending().orElseThrow().endsWith(
                "nothing is changed: " + anna.name() + ", who asked for it, may no longer sign in"));
        verify(carrier, never()).carryOut(anyString(), any(), anyString());
    }

    @Test
    void whereAnotherAsksByNowItIsWantedAnew() {
        long id = wanted();
        say(id, bert, true, "fine");
        when(carrier.asks("{}")).thenReturn(Set.of("production", "staging"));
        agreements.perform(Long.toString(id));
        assertTrue(agreements.one(id).ending().orElseThrow().endsWith(
                "staging asks for a second person too by now, and nobody was asked there: ask for it again"));
    }
}

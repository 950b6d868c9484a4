package dev.paseo.service.announcement;

import dev.paseo.service.engine.LiveEvents;
import dev.paseo.service.change.Changes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.reach.Reach;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReceiversTest {

    private static final Person SOMEBODY = new Person(1, "operator", Set.of(), List.of());

    private final RealDatabase database = RealDatabase.get();
    private final AnnouncementMapper mapper = database.mapper(AnnouncementMapper.class);
    private final Reach reach = mock(Reach.class);
    private final Secrets secrets = mock(Secrets.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final AuditTrail audit = mock(AuditTrail.class);
    private final Receivers receivers = new Receivers(mapper, reach, secrets, database.json(),
            new Changes(database.transactions(), clock, audit, mock(LiveEvents.class)));

    @BeforeEach
    void time() {
        when(clock.now()).thenReturn(Rows.NOON);
    }

    private static Receivers.ReceiverRequest request(String name, String address, String... kinds) {
        return new Receivers.ReceiverRequest(name, address, Optional.of(List.of(kinds)), Optional.empty());
    }

    @ParameterizedTest
    @CsvSource({"Upper Case, https://desk.example/events", "desk, ftp://desk.example",
            "desk, https://desk.example/?a=b",
            "desk, https://user@desk.example/"})
    void whatIsNoNameOrNoAddressIsRefused(String name, String address) {
        assertEquals(Refusal.Kind.INVALID,
                assertThrows(Refusal.class, () -> receivers.add(SOMEBODY, request(name, address))).kind());
    }

    @Test
    void aKindThatIsNotThereIsRefusedWithTheNearest() {
        String why = assertThrows(Refusal.class, () -> receivers.add(SOMEBODY,
                request(Rows.fresh("desk"), "https://desk.example/", "service.deploye"))).getMessage();
        assertTrue(why.contains("service.deployed"), why);
    }

    @Test
    void anAddressThatMayNotBeReachedIsNotAdded() {
        String name = Rows.fresh("desk");
        doThrow(Refusal.notAllowed("no")).when(reach).allow(any(), anyString());
        assertThrows(Refusal.class, () -> receivers.add(SOMEBODY, request(name, "http://10.0.0.1/")));
        assertEquals(Optional.empty(), mapper.named(name));
    }

    @Test
    void itsNameIsItsOwnAndItsSecretIsShownOnce() {
        String name = Rows.fresh("desk");
        assertTrue(receivers.add(SOMEBODY, request(name, "https://desk.example/")).secret().startsWith("whsec_"));
        assertEquals(Refusal.Kind.CONFLICT, assertThrows(Refusal.class,
                () -> receivers.add(SOMEBODY, request(name, "https://desk.example/"))).kind());
        verify(secrets).set(any(), any(), any(), any());
    }

    @Test
    void whereItsSecretCannotBeKeptThereIsNoReceiver() {
        String name = Rows.fresh("desk");
        doThrow(new IllegalStateException("the key is away")).when(secrets).set(any(), any(), any(), any());
        assertThrows(IllegalStateException.class,
                () -> receivers.add(SOMEBODY, request(name, "https://desk.example/")));
        assertEquals(Optional.empty(), mapper.named(name));
    }

    @Test
    void aMessageOfAnotherIsNotSentAgain() {
        String name = Rows.fresh("desk");
        receivers.add(SOMEBODY, request(name, "https://desk.example/"));
        assertEquals(Refusal.Kind.NOT_FOUND,
                assertThrows(Refusal.class, () -> receivers.resend(SOMEBODY, name, Long.MAX_VALUE)).kind());
        assertEquals(Refusal.Kind.NOT_FOUND,
                assertThrows(Refusal.class, () -> receivers.stop(SOMEBODY, "nobody-of-this-name")).kind());
    }
}

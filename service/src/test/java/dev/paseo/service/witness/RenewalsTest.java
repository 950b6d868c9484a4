package dev.paseo.service.witness;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.signature.ServiceKey;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RenewalsTest {

    private static final byte[] BYTES = "what is signed".getBytes(StandardCharsets.UTF_8);

    @TempDir
    Path data;

    private final Settings settings = mock(Settings.class);
    private final AuditTrail audit = mock(AuditTrail.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private ServiceKey key;
    private Renewals renewals;

    @BeforeEach
    void aKey() throws Exception {
        when(settings.data()).thenReturn(data);
        when(clock.now()).thenReturn(Rows.NOON);
        key = new ServiceKey(settings);
        renewals = new Renewals(key, audit, RealDatabase.get().transactions(), clock);
    }

    @Test
    void theNewKeySignsOnEveryReplicaAndTheOldOneIsGone() throws Exception {
        ServiceKey replica = new ServiceKey(settings);
        String before = key.ring().newest();
        String early = replica.sign(BYTES);
        KeyRing ring = renewals.renew(" Yearly ", "admin");
        assertEquals(List.of(before, ring.newest()), ring.terms().stream().map(KeyRing.Term::key).toList());
        assertEquals(ring, replica.ring());
        assertTrue(new KeyRing(ring.newest(), List.of()).signer(BYTES, replica.sign(BYTES)).isPresent());
        assertTrue(ring.signer(BYTES, early).isPresent());
        Path file = data.resolve("keys/audit-ed25519");
        assertEquals("rw-------", PosixFilePermissions.toString(Files.getPosixFilePermissions(file)));
        assertEquals(3, Files.readAllLines(file).size(), "one private key, and two public ones");
        verify(audit).record(AuditTrail.Entry.of("admin", "renewed the key that signs", "audit trail")
                .because("Yearly").with("key before", ring.terms().getFirst().print())
                .with("key", ring.terms().getLast().print()));
        assertEquals(ring, new ServiceKey(settings).ring(), "it is read after a start");
    }

    @Test
    void manyAtOnceFollowOneAnother() throws Exception {
        ServiceKey replica = new ServiceKey(settings);
        List<Callable<KeyRing>> all = IntStream.range(0, 8)
                .mapToObj(i -> (Callable<KeyRing>) () -> (i % 2 == 0 ? key : replica).renew(Rows.NOON, after -> {}))
                .toList();
        try (ExecutorService threads = Executors.newFixedThreadPool(8)) {
            for (Future<KeyRing> each : threads.invokeAll(all)) {
                each.get();
            }
        }
        assertEquals(8, key.ring().renewals().size());
    }

    @Test
    void withoutAReasonNothingIsRenewed() {
        KeyRing before = key.ring();
        assertEquals("should say why, in 1 to 1000 characters",
                Refused.by(Kind.INVALID, () -> renewals.renew(" ", "admin")));
        assertEquals("should say why, in 1 to 1000 characters",
                Refused.by(Kind.INVALID, () -> renewals.renew("x".repeat(1001), "admin")));
        assertEquals(before, key.ring());
        verifyNoInteractions(audit);
    }

    @Test
    void aRenewalThatCannotBeWrittenDownDoesNotHappen() {
        KeyRing before = key.ring();
        doThrow(new IllegalStateException("the database is away")).when(audit).record(any());
        assertThrows(IllegalStateException.class, () -> renewals.renew("Yearly", "admin"));
        assertEquals(before, key.ring());
    }
}

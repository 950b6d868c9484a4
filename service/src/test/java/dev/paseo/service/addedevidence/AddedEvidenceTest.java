package dev.paseo.service.addedevidence;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.evidence.SignOff;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.io.InputStream;
import java.util.Collections;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class AddedEvidenceTest {

    private final Evidence evidence = mock(Evidence.class);
    private final KeptBytes bytes = mock(KeptBytes.class);
    private final Stretches gates = mock(Stretches.class);
    private final Changes changes = mock(Changes.class);
    private final Versions.Version version = mock(Versions.Version.class);
    private final Person somebody = mock(Person.class);
    private final AddedEvidence added = new AddedEvidence(evidence, bytes, mock(Environments.class), gates, changes);

    @BeforeEach
    void transactions() {
        doAnswer(call -> {
            ((Runnable) call.getArgument(0)).run();
            return null;
        }).when(changes).run(any());
        when(version.component()).thenReturn("daylight-api");
        when(version.number()).thenReturn("1.4.1");
        when(version.id()).thenReturn(7L);
        when(somebody.name()).thenReturn("tester");
    }

    private String refused(Runnable what) {
        return String.valueOf(assertThrows(Refusal.class, what::run).getMessage());
    }

    private void signOff(String name, String words) {
        added.signOff(version, Optional.empty(), new SignOff(name, words), somebody);
    }

    @Test
    void gatesSeeItAtOnceAndTheSameAgainChangesNothing() {
        when(evidence.add(any())).thenReturn(true, false);
        signOff("Ana Ruiz", "Walked it");
        verify(gates).wakeVersion(7);
        signOff("Ana Ruiz", "Walked it");
        verify(gates).wakeVersion(anyLong());
        verify(changes).record(any());
    }

    @Test
    void whatIsNotReadIsKeptAsItIs() {
        when(bytes.keep(any(), eq(64_000_000L), any())).thenReturn(new ByteStore.StoredBytes("digest", 12));
        when(evidence.add(any())).thenReturn(true);
        assertEquals("digest", added.file(version, Optional.empty(), "signature", InputStream.nullInputStream(),
                somebody));
        verify(evidence, never()).readFile(any(), any());
    }

    @Test
    void nothingElseIsTaken() {
        assertEquals("There is no kind of evidence test; did you mean tests?; there are tests, coverage, findings, "
                + "parts, signature, statement",
                refused(() -> added.file(version, Optional.empty(), "test",
                        InputStream.nullInputStream(), somebody)));
        assertEquals("should be whose word it is, in 1 to 100 characters", refused(() -> signOff(" ", "Walked it")));
        assertEquals("should be whose word it is, in 1 to 100 characters",
                refused(() -> signOff("x".repeat(101), "Walked it")));
        assertEquals("should be what is said, in 1 to 2000 characters", refused(() -> signOff("Ana", "")));
        assertEquals("should be what is said, in 1 to 2000 characters",
                refused(() -> signOff("Ana", "x".repeat(2001))));
        when(evidence.added(7)).thenReturn(Collections.nCopies(500, mock(Evidence.AddedEvidenceView.class)));
        assertEquals("daylight-api 1.4.1 has 500 pieces of added evidence: no more are taken",
                refused(() -> signOff("Ana", "Walked it")));
    }
}

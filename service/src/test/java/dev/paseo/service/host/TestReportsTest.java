package dev.paseo.service.host;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.agent.Work;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import org.junit.jupiter.api.Test;

class TestReportsTest {

    private final TestReports reports = new TestReports(mock(Deployments.class), mock(Environments.class),
            mock(Evidence.class));

    @Test
    void nothingButReportsOfTestsIsTakenFromAHost() {
        Work work = mock(Work.class);
        when(work.kind()).thenReturn("HOST");
        ByteStore.StoredBytes kept = new ByteStore.StoredBytes("0".repeat(64), 1);
        String refused = "A deployment keeps no files; it uses those of its version";
        assertEquals(refused, Refused.by(Kind.CONFLICT, () -> reports.report(work, "tests", kept)));
        assertEquals(refused, Refused.by(Kind.CONFLICT, () -> reports.output(work, "app", "app.jar", kept)));
        assertEquals(refused, Refused.by(Kind.CONFLICT, () -> reports.files(work, kept)));
        assertEquals(refused, Refused.by(Kind.CONFLICT, () -> reports.reuse(work, "a-key", kept)));
    }
}

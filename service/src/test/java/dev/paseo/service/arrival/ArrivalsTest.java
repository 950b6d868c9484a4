package dev.paseo.service.arrival;

import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.bytes.Archive;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.anyString;

import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.version.Versions;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class ArrivalsTest {

    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "hut-planner", Optional.empty(),
            "paseo.yaml", "main",
            "", Optional.empty());
    private static final String FILE = """
            paseo: 1
            component: hut-planner
            deployment:
              artifacts: [planner]
              bring: [deploy/*.sh]
              on-each-host: [sh deploy/unpack.sh]
            """;

    private final Components components = mock(Components.class);
    private final Versions versions = mock(Versions.class);
    private final KeptBytes bytes = mock(KeptBytes.class);
    private final ArrivalChecks checks = new ArrivalChecks(components, versions, bytes);
    private final Arrivals arrivals = new Arrivals(versions, checks, mock(RunStarts.class), mock(Causes.class),
            mock(Evidence.class));

    private void file(List<Problem> problems) {
        when(components.heads(7)).thenReturn(Map.of("main", "c0ffee"));
        when(components.readFile(COMPONENT, "c0ffee")).thenReturn(new FileInForce(1,
                problems.isEmpty() ? PipelineFileReader.read(FILE).value() : Optional.empty(), problems, List.of()));
    }

    private void seal(String bundle, String... artifacts) {
        arrivals.seal(COMPONENT, new Arrivals.Arrived("1.4.2", Stream.of(artifacts)
                .map(name -> new Versions.Artifact(name, name + ".tgz", "0".repeat(64), 1)).toList(), bundle,
                List.of(), Set.of(), "uploaded", "anna"));
    }

    @Test
    void aNumberIsOneThatAddressesAndFilesCanHave() {
        for (String wrong : List.of("", ".hidden", "1 4", "1/4", "x".repeat(121))) {
            Refused.field("/number", () -> Arrivals.checkNumber(wrong));
        }
        Arrivals.checkNumber("2.0.0-rc.1+build_7");
    }

    @Test
    void aVersionThatIsHereStaysWithItsBytes() {
        when(versions.exists(7, "1.4.2")).thenReturn(true);
        Versions.Version sealed = mock(Versions.Version.class);
        when(sealed.id()).thenReturn(9L);
        when(versions.numbered(7, "hut-planner", "1.4.2")).thenReturn(sealed);
        when(versions.artifacts(9)).thenReturn(List.of(new Versions.Artifact("planner", "p.tgz", "0".repeat(64), 1)));
        seal(null, "planner");
        String digest = "0".repeat(64);
        assertEquals("hut-planner 1.4.2 is sealed with other bytes, and a version never changes. It was sealed with "
                + "nothing more; received: more sha256:" + digest,
                Refused.by(Kind.CONFLICT, () -> seal(null, "planner", "more")));
        assertEquals("hut-planner 1.4.2 is sealed with other bytes, and a version never changes. It was sealed with "
                + "planner sha256:" + digest + "; received: nothing more",
                Refused.by(Kind.CONFLICT, () -> seal(null)));
    }

    @Test
    void whatTheRecipeCouldNotDeployIsNotTaken() {
        assertEquals("hut-planner has no pipeline file yet", Refused.by(Kind.CONFLICT, () -> seal(null, "planner")));
        file(List.of(new Problem(1, 1, "", "no key of that name")));
        assertTrue(Refused.by(Kind.CONFLICT, () -> seal(null, "planner")).contains("has problems"));
        file(List.of());
        assertEquals("The recipe of hut-planner deploys planner, but the upload has other",
                Refused.by(Kind.CONFLICT, () -> seal(null, "other")));
    }

    @Test
    void theFilesOfTheRecipeComeWithItAndLieInTheirFolder() {
        file(List.of());
        assertEquals("The recipe of hut-planner brings deploy/*.sh: send them too",
                Refused.by(Kind.CONFLICT, () -> seal(null, "planner")));
        assertEquals("The recipe of hut-planner brings deploy/*.sh, and none of the files received matches",
                bundle(Archive.of("deploy/other.txt"), Kind.CONFLICT));
        for (String outside : List.of("../etc/passwd", "deploy/../../up.sh")) {
            assertTrue(bundle(Archive.of(outside), Kind.UNPROCESSABLE).contains("outside its folder"));
        }
        assertTrue(bundle(Archive.of("/etc/passwd"), Kind.UNPROCESSABLE).contains("outside its folder"));
        assertTrue(bundle("no archive".getBytes(StandardCharsets.UTF_8), Kind.UNPROCESSABLE).contains("archive"));
    }

    private String bundle(byte[] archive, Kind kind) {
        when(bytes.openUnchecked(anyString())).thenAnswer(call -> new ByteArrayInputStream(archive));
        return Refused.by(kind, () -> seal("f".repeat(64), "planner"));
    }
}

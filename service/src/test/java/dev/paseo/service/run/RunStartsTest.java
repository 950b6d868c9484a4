package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.core.secret.Lack;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class RunStartsTest {

    private static final String FILE = """
            paseo: 1
            component: daylight-api
            versions: "%s"
            stages:
              build:
                secrets: [STORE_PASSWORD]
                steps: [make]
            """;

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final Versions versions = mock(Versions.class);
    private final Secrets secrets = mock(Secrets.class);
    private final RunMapper mapper = database.mapper(RunMapper.class);
    private final RunStarts starts = new RunStarts(mapper, new VersionNumbers(mapper, versions, noon.clock),
            new FromElsewhere(secrets, mock(Takes.class)), mock(Effects.class), noon.changes, database.json());
    private final long component = database.rows().component();
    private final long file = database.insert("""
            insert into pipeline_file (component_id, commit_id, path, text, problems, read_at)
            values (?, 'c0ffee', 'paseo.yaml', '', '[]', ?)""", component, Rows.NOON);

    private RunStarts.Started start(String pattern, Optional<Instant> retired, boolean trusted) {
        PipelineFile plan = PipelineFileReader.read(FILE.formatted(pattern)).value().orElseThrow();
        return starts.start(new RunStarts.Start(
                new RegisteredComponent(component, "daylight-api", Optional.empty(), "paseo.yaml", "main", "", retired),
                trusted ? "main" : "feature/map",
                new Mirror.Commit("c0ffee1234", "Draw the map", "Anna", "anna@park.test", Rows.NOON, Optional.empty()),
                trusted, file, plan, new RunStarts.Reason(database.rows().cause(), "push", "anna"), null, Map.of()));
    }

    @Test
    void numbersOfRunsAndVersionsGoOnAndUntrustedOnesStandBeside() {
        assertEquals("2.1", start("2.{serial}", Optional.empty(), true).version());
        RunStarts.Started second = start("2.{serial}", Optional.empty(), true);
        assertEquals("2.2", second.version());
        assertEquals(2, second.number());
        assertTrue(start("2.{serial}", Optional.empty(), false).version().startsWith("2.3"));
        assertEquals("2.3", start("2.{serial}", Optional.empty(), true).version(), "no number was used up");
    }

    @Test
    void whatCannotBeStartedSaysWhyAndUsesNoNumber() {
        assertEquals("daylight-api is retired: none of its runs can be started",
                Refused.by(Kind.CONFLICT, () -> start("{serial}", Optional.of(Rows.NOON), true)));
        assertEquals("The pattern {tag}.{serial} names {tag}, but there is no tag at or before this commit",
                Refused.by(Kind.CONFLICT, () -> start("{tag}.{serial}", Optional.empty(), true)));
        when(versions.exists(component, "2.c0ffee1")).thenReturn(true);
        assertEquals("Version 2.c0ffee1 of daylight-api is sealed already; versions never change, so the pattern "
                + "2.{commit} cannot give this number again",
                Refused.by(Kind.CONFLICT, () -> start("2.{commit}", Optional.empty(), true)));
        when(secrets.lacks(any(), anyLong(), anyLong()))
                .thenReturn(List.of(new Lack("STORE_PASSWORD", true)));
        assertEquals(
                "The stages use what they may not have: STORE_PASSWORD has no value: paseo secret set "
                        + "STORE_PASSWORD --component daylight-api",
                Refused.by(Kind.CONFLICT, () -> start("2.{serial}", Optional.empty(), true)));
        when(secrets.lacks(any(), anyLong(), anyLong())).thenReturn(List.of());
        assertEquals(1, start("2.{serial}", Optional.empty(), true).number());
    }
}

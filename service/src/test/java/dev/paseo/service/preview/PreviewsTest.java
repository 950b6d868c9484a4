package dev.paseo.service.preview;

import dev.paseo.service.pipeline.FileInForce;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.request.Requests;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** Why a branch gets no preview: whoever pushed it is told. */
class PreviewsTest {

    private static final String FILE = """
            paseo: 1
            component: path-board
            versions: "1.{serial}"
            starts: [{push: [main]}, {preview: [feature/*]}]
            stages:
              build: {steps: ['true'], keep: {app: out/app}}
            deployment:
              on-each-host: [deploy/install.sh]
            %s""";

    private final AtNoon noon = new AtNoon();
    private final PreviewMapper mapper = mock(PreviewMapper.class);
    private final Versions versions = mock(Versions.class);
    private final Components components = mock(Components.class);
    private final Agents agents = mock(Agents.class);
    private final PreviewTemplates templates = new PreviewTemplates(mapper, agents, RealDatabase.get().json());
    private final Previews previews = new Previews(
            new PreviewsAsked(versions, components, mock(Deployments.class)), templates,
            new PreviewPlaces(mapper, templates, mock(Environments.class), mock(Secrets.class), noon.changes),
            mock(Requests.class), new NoPreview(noon.changes, mock(Notices.class)));

    @BeforeEach
    void aBranchThatWantsOne() {
        when(mapper.templates()).thenReturn(List.of(new PreviewMapper.TemplateRow(5, "park",
                RealDatabase.get().json().write(new Template("park", "path-board", "meadow", "http://meadow:{port}",
                        9000, 9001, 2, Optional.empty(), Optional.empty(), Map.of(), List.of())),
                1)));
        when(mapper.agent("meadow")).thenReturn(Optional.of("meadow-agent"));
        when(agents.refusesPreviews("meadow-agent")).thenReturn(Optional.empty());
        Mirror mirror = mock(Mirror.class);
        when(components.mirror(any())).thenReturn(mirror);
        when(mirror.commit("c0ffee")).thenReturn(
                new Mirror.Commit("c0ffee", "Draw it", "Anna", "anna@park.example", Rows.NOON, Optional.empty()));
    }

    private void version(String more) {
        Versions.Version version = mock(Versions.Version.class, RETURNS_DEEP_STUBS);
        when(version.component()).thenReturn("path-board");
        when(version.number()).thenReturn("1.1");
        when(version.branch()).thenReturn("feature/map");
        when(version.commit()).thenReturn(Optional.of("c0ffee"));
        PipelineFile file = PipelineFileReader.read(FILE.formatted(more)).value().orElseThrow();
        when(version.recipe()).thenReturn(file.deployment());
        when(versions.byId(3)).thenReturn(version);
        when(components.readFile(any(), anyString()))
                .thenReturn(new FileInForce(1, Optional.of(file), List.of(), List.of()));
    }

    private PreviewRow row(String branch, int port, @Nullable String removing) {
        return new PreviewRow(8, "park-x", 5, "park", 7, "path-board", branch, "anna@park.example", port, Rows.NOON,
                Rows.NOON, removing, null, null);
    }

    private String why(String more) {
        version(more);
        previews.perform("3");
        ArgumentCaptor<AuditTrail.Entry> told = ArgumentCaptor.captor();
        verify(noon.audit).record(told.capture());
        assertEquals("no preview", told.getValue().what());
        return told.getValue().because();
    }

    private static final String REMOVAL = "  removal: [deploy/remove.sh]\n";

    @Test
    void itsRecipeCouldNotTakeItAway() {
        assertEquals("its recipe has no removal, so that a preview of it could never be taken away again", why(""));
    }

    @Test
    void itsHostHasNoAgent() {
        when(mapper.agent("meadow")).thenReturn(Optional.empty());
        assertEquals("The host meadow of previews has no agent", why(REMOVAL));
    }

    @Test
    void itsAgentDoesNotTakeThem() {
        when(agents.refusesPreviews("meadow-agent")).thenReturn(Optional.of("it has no walls"));
        assertEquals("The agent of the host meadow takes no previews: it has no walls", why(REMOVAL));
    }

    @Test
    void itsLastOneIsBeingRemoved() {
        when(mapper.of(7, "feature/map")).thenReturn(Optional.of(row("feature/map", 9000, "the branch was deleted")));
        version(REMOVAL);
        Versions.Version version = versions.byId(3);
        when(version.componentId()).thenReturn(7L);
        previews.perform("3");
        ArgumentCaptor<AuditTrail.Entry> told = ArgumentCaptor.captor();
        verify(noon.audit).record(told.capture());
        assertEquals("The preview of this branch is being removed; the next push gets a new one",
                told.getValue().because());
    }

    @Test
    void thereAreAsManyAsThereMayBe() {
        when(mapper.there()).thenReturn(List.of(row("feature/sun", 9000, null), row("feature/rain", 9001, null)));
        assertEquals("There are 2 previews of park already, which is the most: feature/sun, feature/rain",
                why(REMOVAL));
    }

    @Test
    void itsPortsAreInUse() {
        when(mapper.templates()).thenReturn(List.of(new PreviewMapper.TemplateRow(5, "park",
                RealDatabase.get().json().write(new Template("park", "path-board", "meadow", "http://meadow:{port}",
                        9000, 9000, 2, Optional.empty(), Optional.empty(), Map.of(), List.of())),
                1)));
        when(mapper.there()).thenReturn(List.of(row("feature/sun", 9000, null)));
        assertEquals("All ports of park, 9000 to 9000, are in use", why(REMOVAL));
    }
}

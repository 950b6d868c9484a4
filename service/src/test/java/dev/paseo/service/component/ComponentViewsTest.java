package dev.paseo.service.component;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.quota.Quota;
import dev.paseo.language.Problem;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.ComponentViews.ComponentView;
import dev.paseo.service.component.ComponentViews.LinkView;
import dev.paseo.service.component.ComponentViews.SourceView;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceCredentials;
import dev.paseo.service.start.StartTriggers;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mockito.Mockito;

class ComponentViewsTest {

    private static final List<Problem> BROKEN = List.of(new Problem(1, 1, "", "it makes a cycle"));

    private final RealDatabase database = RealDatabase.get();
    private final ComponentMapper mapper = database.mapper(ComponentMapper.class);
    private final PipelineFiles files = mock(PipelineFiles.class);
    private final Quotas quotas = mock(Quotas.class);
    private final Components components = new Components(mapper,
            new ComponentMirrors(mapper, mock(Mirrors.class), mock(SourceCredentials.class)),
            database.json(), files, mock(StartTriggers.class), new AtNoon().changes);
    private final ComponentViews views = new ComponentViews(components, mapper, quotas);
    private final long id = database.rows().component();
    private final String name = database.name("component", id);

    ComponentViewsTest() {
        when(quotas.quota()).thenReturn(new Quota(1_000_000_000));
        when(files.at(any(), any(), any())).thenReturn(new FileInForce(1, Optional.empty(), BROKEN, List.of()));
    }

    private ComponentView listed() {
        return views.all().stream().filter(each -> each.name().equals(name)).findFirst().orElseThrow();
    }

    private void inForce(long file) {
        database.change("update component set triggers_file_id = ? where id = ?", file, id);
    }

    @Test
    void aListTellsOfEachWhatIsToldOfItAlone() {
        long file = database.rows().fileOfMain(id, "paseo: 1");
        inForce(file);
        mapper.addRule(id, "main", true);
        mapper.addRule(id, "feature/*", false);
        mapper.addFormerName(name + "-before", id);
        long source = database.rows().component();
        mapper.openSource(id, source, true);
        mapper.addLink(id, "Runbook", "https://park.example/b", 0);
        mapper.addLink(id, "Map", "https://park.example/a", 1);
        mapper.addLabel(id, "team", "wardens");
        ComponentView view = listed();
        assertEquals(List.of("main"), view.trusted());
        assertEquals(List.of("feature/*"), view.allowed());
        assertEquals(List.of(name + "-before"), view.formerNames());
        assertEquals(List.of(new SourceView(database.name("component", source), true)), view.sources());
        assertEquals(List.of("Runbook", "Map"), view.links().stream().map(LinkView::title).toList());
        assertEquals(Map.of("team", "wardens"), view.labels());
        assertEquals(List.of(), view.problems());
        when(files.at(any(), any(), any())).thenReturn(new FileInForce(1, Optional.empty(), List.of(), List.of()));
        assertEquals(views.view(components.byId(id)), view);
        mapper.addHead(id, "feature/moon", "c1", null, Rows.NOON);
        assertEquals(Map.of("main", "c0ffee"), listed().heads(), "a list names the main branch alone");
    }

    @Test
    void aFileThatIsKnownToBeSoundIsNotReadForAList() {
        inForce(database.rows().fileOfMain(id, "paseo: 1"));
        assertEquals(List.of(), listed().problems());
        Mockito.verify(files, Mockito.never()).at(Mockito.argThat(owner -> owner.id() == id), any(), any());
    }

    @Test
    void whatMayBeWrongIsRead() {
        assertEquals(List.of(), listed().problems(), "it has no branch");
        long file = database.rows().fileOfMain(id, "paseo: 1");
        assertEquals(BROKEN, listed().problems(), "its triggers are not in force");
        inForce(file);
        database.change("update pipeline_file set text = 'stages: [{like: build}]' where id = ?", file);
        assertEquals(BROKEN, listed().problems(), "it may use pieces");
        database.change("update pipeline_file set text = '', problems = '[{}]' where id = ?", file);
        assertEquals(BROKEN, listed().problems(), "something was wrong when it was read");
    }
}

package dev.paseo.service.edit;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.junit.jupiter.api.Test;

class NewestRunsMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final NewestRunsMapper mapper = database.mapper(NewestRunsMapper.class);
    private final Rows rows = database.rows();

    private void event(long component, String kind, String branch) {
        database.insert("insert into trigger_event (component_id, kind, branch, commit_id, sentence, actor, at) "
                + "values (?, ?, ?, 'c0ffee', '', '', ?)", component, kind, branch, Rows.NOON);
    }

    @Test
    void theNewestPushesComeFirstAndNothingElseIsAPush() {
        long component = rows.component();
        event(component, "push", "main");
        event(component, "tag", "main");
        event(component, "push", "season/spring");
        event(component, "push", "try/metres");
        event(rows.component(), "push", "another");
        assertEquals(List.of("try/metres", "season/spring"),
                mapper.pushes(component, 2).stream().map(NewestRunsMapper.PushRow::branch).toList());
        assertEquals(3, mapper.pushes(component, 20).size());
    }

    @Test
    void theNewestAttemptOfAStageIsRead() {
        long component = rows.component();
        long run = rows.run(component, rows.line(component));
        rows.stage(run, "compile", 1);
        long second = rows.stage(run, "compile", 2);
        rows.stage(run, "lint", 1);
        assertEquals(List.of(second), mapper.stages(run, "compile"));
        assertEquals(List.of(run), mapper.newest(component, 20).stream().map(NewestRunsMapper.RunRow::id).toList());
    }

    @Test
    void whatWasProposedToAnEnvironmentIsPromotionsAlone() {
        Rows.Place place = rows.place();
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long first = rows.deployment(place.id(), version);
        long back = rows.deployment(place.id(), version);
        database.change("update deployment set kind = 'rollback' where id = ?", back);
        long second = rows.deployment(place.id(), version);
        String environment = database.name("environment", place.environment());
        assertEquals(List.of(second, first), mapper.proposed(environment, 20).stream()
                .map(NewestRunsMapper.ProposedRow::deployment).toList());
        assertEquals(List.of(second), mapper.proposed(environment, 1).stream()
                .map(NewestRunsMapper.ProposedRow::deployment).toList());
    }
}

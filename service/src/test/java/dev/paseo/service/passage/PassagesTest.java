package dev.paseo.service.passage;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.GateDecisions;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.picture.Pictures;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class PassagesTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final Gates gates = mock(Gates.class);
    private final Versions versions = mock(Versions.class);
    private final ExitGates exits = new ExitGates(mock(Environments.class), versions, gates, mock(Authorship.class));
    private final Passages passages = new Passages(database.mapper(PassageMapper.class), versions, exits,
            mock(WaitingGates.class), noon.changes);
    private final GateDecisions said = mock(GateDecisions.class);
    private final PassageDecisions decisions = new PassageDecisions(passages, exits, said, mock(Pictures.class),
            noon.changes);
    private final Evaluation gate = mock(Evaluation.class);
    private final Person anna = new Person(1, "anna", Set.of(), List.of());
    private final long id = passage();

    private long passage() {
        Rows.Place place = database.rows().place();
        long version = database.rows().version(place.component(), database.rows().line(place.component()), 1);
        long deployment = database.rows().deployment(place.id(), version);
        return database.insert("""
                insert into passage (version_id, environment_id, deployment_id, status, format, opened_at)
                values (?, ?, ?, 'open', 1, ?)""", version, place.environment(), deployment, Rows.NOON);
    }

    @BeforeEach
    void gate() {
        Versions.Version sealed = mock(Versions.Version.class);
        when(sealed.commit()).thenReturn(Optional.empty());
        when(versions.byId(anyLong())).thenReturn(sealed);
        when(gates.evaluate(any())).thenReturn(gate);
        when(gate.refusal("anna")).thenReturn(Optional.empty());
    }

    private void ended() {
        database.change("update passage set status = 'ended', ended_at = ? where id = ?", Rows.NOON, id);
    }

    @Test
    void ofAPassageThatHasEndedNothingIsDecidedAnyMore() {
        ended();
        assertEquals("Passage " + id + " has ended: nothing of it can be decided any more",
                Refused.by(Kind.CONFLICT, () -> decisions.decide(id, anna, true, "fine", Optional.empty())));
        assertEquals("Passage " + id + " has ended: nothing of it can be ticked any more",
                Refused.by(Kind.CONFLICT, () -> decisions.tick(id, anna, "looked at the map",
                        Optional.of("done"), Optional.empty(), Optional.empty())));
    }

    @Test
    void whoIsNotAskedDoesNotDecideAndANoSaysWhy() {
        assertEquals("Say why it is rejected",
                Refused.field("/comment", () -> decisions.decide(id, anna, false, "", Optional.empty())));
        when(gate.needsComment()).thenReturn(true);
        Refused.field("/comment", () -> decisions.decide(id, anna, true, "", Optional.empty()));
        when(gate.refusal("anna")).thenReturn(Optional.of("anna is not asked"));
        assertEquals("anna is not asked",
                Refused.by(Kind.NOT_ALLOWED, () -> decisions.decide(id, anna, true, "fine", Optional.empty())));
        verify(said, never()).decide(any(), any(), any(), any(Boolean.class), anyString());
    }

    @Test
    void whatIsNotThereIsNotDecided() {
        Refused.by(Kind.NOT_FOUND, () -> decisions.decide(0, anna, true, "fine", Optional.empty()));
    }
}

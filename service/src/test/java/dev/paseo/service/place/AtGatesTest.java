package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What stands at a gate: a deployment, a prospect, or a member of a set beside the others. */
class AtGatesTest {

    private static final Map<Long, String> SET = Map.of(1L, "path-board", 2L, "hut-map", 3L, "hut-planner");

    private final PlaceRepository repository = mock(PlaceRepository.class);
    private final Versions versions = mock(Versions.class);
    private final Environments environments = mock(Environments.class);
    private final SetMembership sets = mock(SetMembership.class);
    private final AtGates atGates = new AtGates(repository, versions, environments, sets, new AtNoon().clock);
    private final Environments.Environment production = new Environments.Environment(5, "production", "UTC",
            Rules.NONE, 1);

    @BeforeEach
    void threeGoTogether() {
        when(environments.of(any())).thenReturn(production);
        when(repository.version(any())).thenReturn(Optional.empty());
        when(sets.members(40)).thenReturn(List.of(1L, 2L, 3L));
        SET.forEach((id, component) -> {
            Versions.Version version = mock(Versions.Version.class);
            when(version.id()).thenReturn(id);
            when(version.component()).thenReturn(component);
            when(versions.byId(id)).thenReturn(version);
            when(environments.place(component, "production")).thenReturn(place(component));
        });
    }

    private static Environments.Place place(String component) {
        return SomePlace.of(component);
    }

    private Gates.AtGate at(long version, Long promotion) {
        Deployment row = mock(Deployment.class);
        when(row.id()).thenReturn(11L);
        when(row.versionId()).thenReturn(version);
        when(row.promotionId()).thenReturn(promotion);
        when(row.requestedAt()).thenReturn(Rows.NOON.minusSeconds(5));
        when(row.kind()).thenReturn(Kind.ROLLBACK);
        return atGates.of(place(SET.get(version)), row);
    }

    private static List<String> components(List<Gates.AtGate> others) {
        return others.stream().map(other -> other.version().component()).toList();
    }

    @Test
    void aDeploymentStandsThereAloneSinceItWasAskedFor() {
        Gates.AtGate at = at(1, null);
        assertEquals(Gates.Standing.ofDeployment(11), at.standing());
        assertEquals("", at.requester(), "the walk");
        assertEquals(Rows.NOON.minusSeconds(5), at.requestedAt());
        assertEquals(Kind.ROLLBACK, at.kind());
        assertEquals(production, at.environment());
        assertEquals(Optional.empty(), at.set());
    }

    /** The first stands there for all; each of the others sees all but itself. */
    @Test
    void ofASetTheFirstStandsThereForAll() {
        Gates.InSet first = at(1, 40L).set().orElseThrow();
        assertTrue(first.first());
        assertEquals(List.of("hut-map", "hut-planner"), components(first.others()));
        assertEquals(List.of("path-board", "hut-planner"),
                components(first.others().getFirst().set().orElseThrow().others()));
        Gates.InSet second = at(2, 40L).set().orElseThrow();
        assertFalse(second.first());
        assertEquals(List.of("path-board", "hut-planner"), components(second.others()));
        assertEquals(Optional.empty(), AtGates.alone(at(1, 40L)).set());
    }

    @Test
    void aProspectIsAPromotionFromNow() {
        Gates.AtGate at = atGates.proposed(place("path-board"), versions.byId(1), "ben");
        assertEquals(Kind.PROMOTION, at.kind());
        assertEquals(Rows.NOON, at.requestedAt());
        assertEquals("ben", at.requester());
    }
}

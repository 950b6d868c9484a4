package dev.paseo.service.restraint;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.GateRules;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What stands around a place when something would go there. */
class RestraintsTest {

    private final RealDatabase database = RealDatabase.get();
    private final RestraintMapper mapper = database.mapper(RestraintMapper.class);
    private final Rows.Place row = database.rows().place();
    private final long somebody = database.rows().account();
    private final Restraints restraints = new Restraints(mapper, mock(Environments.class), new AtNoon().clock,
            new ClosedPeriods());
    private final Environments.Place place = SomePlace.of(row, "path-board");
    private final Versions.Version version = mock(Versions.Version.class);
    private final Recipe recipe = mock(Recipe.class);

    @BeforeEach
    void aVersion() {
        when(version.number()).thenReturn("1.4.2");
        when(version.recipe()).thenReturn(Optional.of(recipe));
        when(recipe.requires()).thenReturn(Map.of());
    }

    private GateFacts.Around around(Kind kind, Rules rules, Map<String, String> beside) {
        return restraints.around(place, new Environments.Environment(row.environment(), "production", "UTC", rules, 1),
                version, kind, beside);
    }

    private static Rules goingOn(boolean takesOver) {
        return new Rules(Rules.FORMAT, Optional.empty(), Criterion.Origin.TRUSTED, new Rules.Gates(GateRules.NONE,
                new GateRules(List.of(), List.of(), Optional.of(Duration.ofHours(1)), Optional.empty(), List.of(),
                        List.of())),
                GateRules.NONE, takesOver, false, Map.of(), Optional.empty(), Optional.empty());
    }

    @Test
    void aHoldOfThePlaceAndAClosureOfItsEnvironmentAreSaid() {
        assertEquals(GateFacts.Around.PLAIN, around(Kind.PROMOTION, Rules.NONE, Map.of()));
        mapper.addHold(row.id(), "the snow", somebody, Rows.NOON);
        mapper.addClosure(row.environment(), "the night", somebody, Rows.NOON, Rows.NOON.plusSeconds(60));
        GateFacts.Around around = around(Kind.PROMOTION, Rules.NONE, Map.of());
        assertEquals(true, around.held().orElseThrow().contains("the snow"));
        assertEquals(Optional.of(Rows.NOON.plusSeconds(60)), around.closed().orElseThrow().until());
        assertEquals(Optional.of("the snow"), restraints.hold(row.id()).map(Restraints.Hold::reason));
        assertEquals(Optional.of("the night"), restraints.closure(row.environment()).map(Restraints.Closure::reason));
    }

    /** What goes there in the same set counts before what is live there. */
    @Test
    void whatAVersionNeedsIsLookedForInItsSetAndThenInTheEnvironment() {
        when(recipe.requires()).thenReturn(Map.of("hut-map", ">=2"));
        assertEquals(List.of(Optional.empty()), there(Map.of()));
        assertEquals(List.of(Optional.of("2.0.0")), there(Map.of("hut-map", "2.0.0")));
    }

    private List<Optional<String>> there(Map<String, String> beside) {
        return around(Kind.PROMOTION, Rules.NONE, beside).requirements().stream().map(GateFacts.Requirement::live)
                .toList();
    }

    @Test
    void whatIsBeingTestedThereIsWaitedForUnlessTheNewestTakesOver() {
        live();
        assertEquals(1, tested(goingOn(false), Kind.PROMOTION));
        assertEquals(0, tested(goingOn(true), Kind.PROMOTION), "the newest takes over");
        assertEquals(0, tested(goingOn(false), Kind.ROLLBACK), "a rollback does not wait");
        assertEquals(0, tested(Rules.NONE, Kind.PROMOTION), "nothing is asked before it goes on");
    }

    private long tested(Rules rules, Kind kind) {
        return around(kind, rules, Map.of()).tested().stream().count();
    }

    private void live() {
        long there = database.rows().version(row.component(), database.rows().line(row.component()), 1);
        long deployment = database.rows().deployment(row.id(), there);
        database.change("update place set live_deployment_id = ? where id = ?", deployment, row.id());
        database.insert("""
                insert into passage (version_id, environment_id, deployment_id, status, format, opened_at)
                values (?, ?, ?, 'open', 1, ?)""", there, row.environment(), deployment, Rows.NOON);
    }
}

package dev.paseo.core.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules.Gates;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class RulesChangeTest {

    private static final String TESTED = "tests.failed == 0";
    private static final GateRules FACT = gate(TESTED);
    private static final GateRules HOUR = new GateRules(List.of(), List.of(), Optional.of(Duration.ofHours(1)),
            Optional.empty(), List.of(), List.of());

    private static GateRules gate(String... conditions) {
        return new GateRules(List.of(), List.of(), Optional.empty(), Optional.empty(), List.of(conditions), List.of());
    }

    private static Rules rules(GateRules enter, GateRules goOn, GateRules rollback, Map<String, Gates> components) {
        return new Rules(Rules.FORMAT, Optional.empty(), Criterion.Origin.TRUSTED, new Gates(enter, goOn), rollback,
                false, false, components, Optional.empty(), Optional.empty());
    }

    private static Rules entering(GateRules enter) {
        return rules(enter, GateRules.NONE, GateRules.NONE, Map.of());
    }

    static Stream<Arguments> whatChanges() {
        Rules onward = rules(GateRules.NONE, FACT, GateRules.NONE, Map.of());
        Rules back = rules(GateRules.NONE, GateRules.NONE, FACT, Map.of());
        Rules own = rules(GateRules.NONE, GateRules.NONE, GateRules.NONE, Map.of("hut", new Gates(FACT,
                GateRules.NONE)));
        return Stream.of(Arguments.of("nothing", entering(FACT), entering(FACT), List.of(), 0, 0),
                Arguments.of("to enter", Rules.NONE, entering(FACT), List.of(GateSide.TO_ENTER), 1, 0),
                Arguments.of("no more to enter", entering(FACT), Rules.NONE, List.of(GateSide.TO_ENTER), 0, 1),
                Arguments.of("another thing", entering(FACT), entering(HOUR), List.of(GateSide.TO_ENTER), 1, 1),
                Arguments.of("to go on", Rules.NONE, onward, List.of(GateSide.TO_GO_ON), 1, 0),
                Arguments.of("of rollbacks", Rules.NONE, back, List.of(GateSide.ROLLBACK), 1, 0),
                Arguments.of("another gate, of which the words are told of both", onward, back,
                        List.of(GateSide.TO_GO_ON, GateSide.ROLLBACK), 1, 1),
                Arguments.of("of one component", Rules.NONE, own, List.of(GateSide.TO_ENTER), 1, 0),
                Arguments.of("of one that had its own", own, Rules.NONE, List.of(GateSide.TO_ENTER), 0, 1));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource
    void whatChanges(String name, Rules known, Rules wanted, List<GateSide> sides, int more, int less) {
        RulesChange change = new RulesChange(known, wanted);
        assertEquals(sides, Stream.of(GateSide.values()).filter(change::changes).toList());
        assertEquals(!sides.isEmpty(), change.matters());
        assertEquals(more + " more, " + less + " less", change.more().size() + " more, " + change.less().size()
                + " less");
    }

    @Test
    void whatAllAreAskedIsToldOnceAndWhatOneIsAskedAfterItsName() {
        Gates other = new Gates(gate("coverage.lines > 80"), GateRules.NONE);
        RulesChange change = new RulesChange(Rules.NONE,
                rules(FACT, GateRules.NONE, GateRules.NONE, Map.of("hut", other)));
        assertEquals(2, change.more().size());
        assertEquals(List.of(true), change.more().stream().map(text -> text.startsWith("hut: "))
                .filter(named -> named).toList());
        assertEquals(List.of(TESTED, "coverage.lines > 80"), change.after(GateSide.TO_ENTER, Kind.PROMOTION, "hut")
                .stream().filter(Criterion.Fact.class::isInstance).map(each -> ((Criterion.Fact) each).condition())
                .toList());
        assertEquals(List.of(), change.before(GateSide.TO_ENTER, Kind.PROMOTION, "hut").stream()
                .filter(Criterion.Fact.class::isInstance).toList());
    }
}

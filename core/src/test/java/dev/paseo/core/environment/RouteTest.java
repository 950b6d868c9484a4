package dev.paseo.core.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;

import dev.paseo.core.decision.Decision;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class RouteTest {

    private static final Route ROUTE = new Route(List.of(Map.of("test", Route.Mode.AUTOMATIC), sideBySide(),
            Map.of("production", Route.Mode.ON_REQUEST)));

    private static Map<String, Route.Mode> sideBySide() {
        Map<String, Route.Mode> step = new LinkedHashMap<>();
        step.put("staging", Route.Mode.AUTOMATIC);
        step.put("showroom", Route.Mode.AUTOMATIC);
        return step;
    }

    @Test
    void theWalkEntersTheNextStepWhenAllOfTheOneBeforeHaveEnded() {
        assertEquals(List.of("test"), ROUTE.entersNow(Set.of(), Set.of()));
        assertEquals(List.of(), ROUTE.entersNow(Set.of(), Set.of("test")));
        assertEquals(List.of("staging", "showroom"), ROUTE.entersNow(Set.of("test"), Set.of("test")));
        assertEquals(List.of("showroom"), ROUTE.entersNow(Set.of("test", "staging"), Set.of("test", "staging")));
    }

    @Test
    void itEntersNothingByItselfThatIsOnRequest() {
        assertEquals(List.of(), ROUTE.entersNow(Set.of("test", "staging", "showroom"), Set.of()));
        assertEquals(List.of(), ROUTE.entersNow(Set.copyOf(ROUTE.environments()), Set.of()));
    }

    @Test
    void itGoesOnByItselfAsFarAsNobodyHasToAsk() {
        assertEquals(List.of("staging", "showroom"), ROUTE.onward("test"), "production is on request");
        assertEquals(List.of(), ROUTE.onward("staging"));
        assertEquals(List.of(), ROUTE.onward("production"));
        assertEquals(List.of(), ROUTE.onward("elsewhere"));
        Route far = new Route(List.of(Map.of("a", Route.Mode.ON_REQUEST), Map.of("b", Route.Mode.AUTOMATIC),
                Map.of("c", Route.Mode.AUTOMATIC)));
        assertEquals(List.of("b", "c"), far.onward("a"));
    }

    @Test
    void aPassageEndsOnceAndOnlyThroughAnOpenExit() {
        Passage fresh = Passage.opened();
        assertEquals(Decision.moved(fresh, List.of()), Passage.decide(fresh, new Passage.PassageEvent.ExitJudged(true)),
                "it is still watched and tested");
        Passage open = ((Decision.Moved<Passage, Passage.Effect>) Passage.decide(fresh,
                new Passage.PassageEvent.Settled()))
                .state();
        assertEquals(Decision.moved(open, List.of()), Passage.decide(open, new Passage.PassageEvent.ExitJudged(false)));
        Decision.Moved<Passage, Passage.Effect> ended = (Decision.Moved<Passage, Passage.Effect>) Passage.decide(open,
                new Passage.PassageEvent.ExitJudged(true));
        assertEquals(List.of(new Passage.Effect.WalkOn()), ended.effects());
        assertInstanceOf(Decision.Refused.class,
                Passage.decide(ended.state(), new Passage.PassageEvent.ExitJudged(true)));
    }
}

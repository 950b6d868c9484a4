package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.trigger.BringingIn.Repository;
import dev.paseo.core.trigger.BringingIn.Said;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What is said of a repository that is to be a component. */
class BringingInTest {

    private static final List<Trigger> ON_MAIN = List
            .of(new Trigger.Push(List.of(new BranchPattern("main")), List.of()));

    private static Said said(List<String> branches, boolean file, Optional<List<Trigger>> triggers, BranchRules rules) {
        return BringingIn.of("sun-board", new Repository(branches, "main", "paseo.yaml", file, triggers, List.of()),
                rules);
    }

    private static BranchRules trusted(String... patterns) {
        return BranchRules.of(List.of(), List.of(patterns));
    }

    @Test
    void whatIsAsItShouldBeIsSaidWithoutAWarning() {
        Said said = said(List.of("feature/fog", "main"), true, Optional.of(ON_MAIN), trusted("main"));
        assertEquals(List.of(), said.warnings());
        assertEquals("The next push to main starts a run", said.next());
        assertTrue(said.starts());
    }

    @Test
    void whereItNeedsAPlaceIsSaid() {
        Repository walking = new Repository(List.of("main"), "main", "paseo.yaml", true, Optional.of(ON_MAIN),
                List.of("test", "production"));
        assertEquals(
                "The next push to main starts a run. To be deployed it needs a place in test, production: paseo "
                        + "environment edit",
                BringingIn.of("sun-board", walking, trusted("main")).next());
    }

    @Test
    void aSlipInATrustedBranchIsTold() {
        Said said = said(List.of("main"), true, Optional.of(ON_MAIN), trusted("mian"));
        assertEquals(List.of("there is no branch mian; it has main"), said.warnings());
        assertEquals(
                "A push to any of its branches starts nothing; of main: the service allows runs on mian; this is main",
                said.next());
        assertFalse(said.starts());
    }

    @Test
    void aPatternForBranchesToComeIsNoSlipUnlessNothingIsTrusted() {
        assertEquals(List.of(),
                said(List.of("main"), true, Optional.of(ON_MAIN), BranchRules.of(List.of("feature/*"), List.of("main")))
                        .warnings());
        assertEquals(List.of("no branch matches release/*, so none is trusted; it has main"),
                said(List.of("main"), true, Optional.of(ON_MAIN), BranchRules.of(List.of("main"), List.of("release/*")))
                        .warnings());
    }

    @Test
    void aMainBranchThatIsNotThereIsTold() {
        Said said = said(List.of("fog", "ice", "master", "rain", "snow", "wind"), false, Optional.empty(),
                trusted("main"));
        assertEquals(List.of("it has no branch main; it has fog, ice, master, rain, snow and 1 more",
                "there is no branch main; it has fog, ice, master, rain, snow and 1 more"), said.warnings());
        assertFalse(said.starts());
    }

    @Test
    void aFileThatIsNotThereOrHasProblemsOrStartsNothingIsTold() {
        assertEquals(List.of("there is no paseo.yaml on main: nothing starts until there is"),
                said(List.of("main"), false, Optional.empty(), trusted("main")).warnings());
        assertEquals(List.of("paseo.yaml on main has problems: nothing starts until they are mended"),
                said(List.of("main"), true, Optional.empty(), trusted("main")).warnings());
        Said without = said(List.of("main"), true, Optional.of(List.of()), trusted("main"));
        assertEquals(List.of("paseo.yaml names no triggers: nothing starts by itself"), without.warnings());
        assertTrue(without.starts(), "a person may start it");
        assertEquals("A push to any of its branches starts nothing", without.next());
    }

    @Test
    void nobodyTrustedIsTold() {
        assertEquals(
                List.of("no branch is trusted: none of its runs may have secrets, and none of its versions may walk"),
                said(List.of("main"), true, Optional.of(ON_MAIN), BranchRules.of(List.of("main"), List.of()))
                        .warnings());
    }

    @Test
    void anEmptyRepositoryWaitsForItsFirstPush() {
        Said said = said(List.of(), false, Optional.empty(), trusted("main"));
        assertEquals(List.of(), said.warnings());
        assertEquals("The repository is empty. What the first push starts is for its paseo.yaml to say", said.next());
        assertFalse(said.starts());
    }
}

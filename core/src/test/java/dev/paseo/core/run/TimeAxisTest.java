package dev.paseo.core.run;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.run.TimeAxis.Attempt;
import dev.paseo.core.run.TimeAxis.Lane;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class TimeAxisTest {

    private static final Optional<Instant> BEGAN = at(10);

    private static Optional<Instant> at(int second) {
        return second < 0 ? Optional.empty() : Optional.of(Instant.ofEpochSecond(second));
    }

    private static Attempt attempt(String name, int number, List<String> waitsFor, int began, int ended) {
        return new Attempt(name, "", number, waitsFor, at(began), at(ended));
    }

    @Test
    void whatTheEndWaitedForIsCriticalAndEachIsReadyWithTheLastItWaitedFor() {
        assertEquals(List.of(new Lane(at(10), true), new Lane(at(20), false), new Lane(at(20), true),
                new Lane(at(40), true)),
                TimeAxis.of(BEGAN, List.of(attempt("compile", 1, List.of(), 12, 20),
                        attempt("lint", 1, List.of("compile"), 21, 25), attempt("tests", 1, List.of("compile"), 22, 40),
                        attempt("pack", 1, List.of("lint", "tests"), 41, 45))));
    }

    @Test
    void whatWaitsStillIsNotReadyAndWhatIsReadyWaitsForAnAgent() {
        assertEquals(List.of(new Lane(at(10), true), new Lane(at(20), false), new Lane(Optional.empty(), false)),
                TimeAxis.of(BEGAN, List.of(attempt("compile", 1, List.of(), 12, 20),
                        attempt("tests", 1, List.of("compile"), -1, -1),
                        attempt("pack", 1, List.of("tests"), -1, -1))));
    }

    @Test
    void whatWasSkippedWaitedForNoAgent() {
        assertEquals(List.of(new Lane(at(10), true), new Lane(Optional.empty(), false)),
                TimeAxis.of(BEGAN, List.of(attempt("compile", 1, List.of(), 12, 20),
                        attempt("ring", 1, List.of("compile"), -1, 21))));
    }

    @Test
    void ofAResumedStageNobodyKnowsWhenItCouldHaveBegun() {
        assertEquals(List.of(new Lane(at(10), true), new Lane(at(20), false), new Lane(Optional.empty(), true)),
                TimeAxis.of(BEGAN, List.of(attempt("compile", 1, List.of(), 12, 20),
                        attempt("tests", 1, List.of("compile"), 21, 30),
                        attempt("tests", 2, List.of("compile"), 90, 99))));
    }

    @Test
    void ofNothingNothingIsSaid() {
        assertEquals(List.of(), TimeAxis.of(Optional.empty(), List.of()));
        assertEquals(List.of(new Lane(Optional.empty(), false)),
                TimeAxis.of(Optional.empty(), List.of(attempt("compile", 1, List.of(), -1, -1))));
    }
}

package dev.paseo.core.gate;

import dev.paseo.core.text.When;
import dev.paseo.core.gate.GateFacts.Around;
import dev.paseo.core.gate.GateFacts.Closed;
import dev.paseo.core.gate.GateFacts.Requirement;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.semver4j.Semver;

/**
 * What a place is like besides its rules, from which follows what restrains a version there. Pure.
 *
 * @param environment its name
 * @param zone        the environment's, in which times are told
 * @param version     the number of the version that is to go there
 * @param rollback    whether it goes back: what was live before needs nothing beside it
 * @param hold        why nothing goes there by itself
 * @param closure     why nothing goes into the environment, as somebody said
 * @param period      the period of its calendar in which this moment lies
 * @param requires    the ranges that the version needs of others, by component
 * @param beside      the versions of those that are live there, or go there with it, by component
 * @param tested      the version that is live there and has not passed its gate onward, where what comes after it waits
 *                    for that
 */
public record Surroundings(String environment, ZoneId zone, String version, boolean rollback, Optional<Hold> hold,
        Optional<Closure> closure, Optional<Closure> period,
        Map<String, String> requires, Map<String, String> beside, Optional<String> tested) {

    /** A place that is held. */
    public record Hold(String reason, String by, Instant at) {}

    /**
     * An environment that is closed.
     *
     * @param by    who closed it; empty for a period of a calendar
     * @param until when it opens by itself
     */
    public record Closure(String reason, Optional<String> by, Optional<Instant> until) {}

    /** What follows from it at the gate. */
    public Around around() {
        List<Requirement> requirements = rollback ? List.of()
                : requires.entrySet().stream().map(each -> requirement(each.getKey(), each.getValue())).toList();
        return new Around(rollback, hold.map(
                held -> "Held by " + held.by() + " since " + When.in(zone, held.at()) + ": \"" + held.reason() + "\"."),
                closure.or(() -> period)
                        .map(closed -> new Closed(
                                environment + " is closed" + closed.by().map(who -> " by " + who).orElse("")
                                        + closed.until().map(end -> " until " + When.in(zone, end)).orElse("") + ": \""
                                        + closed.reason() + "\".",
                                closed.until())),
                requirements, tested.filter(number -> !number.equals(version)));
    }

    /**
     * Met where the number, read as a semantic version, lies in the range; one that cannot be read as such lies in
     * none.
     */
    private Requirement requirement(String component, String range) {
        Optional<String> there = Optional.ofNullable(beside.get(component));
        boolean met = there.map(Semver::coerce).filter(semver -> semver.satisfies(range)).isPresent();
        return new Requirement(component, range, there, met);
    }
}

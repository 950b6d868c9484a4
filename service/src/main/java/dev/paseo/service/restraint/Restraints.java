package dev.paseo.service.restraint;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Surroundings;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What restrains a place besides its rules: holds, closures, and what its versions need beside them. */
@Component
public class Restraints {

    /** Why nothing goes there by itself. */
    public record Hold(String reason, String by, Instant at) {}

    /** @param until when it ends by itself */
    public record Closure(String reason, String by, Instant at, Optional<Instant> until) {}

    /**
     * A closed period of an environment's calendar, which its rules give: nobody opens it by hand.
     *
     * @param until when it ends, with those that follow it without a gap
     */
    public record ClosedPeriod(String summary, Instant until) {}

    private final RestraintMapper mapper;
    private final Environments environments;
    private final ServiceClock clock;
    private final ClosedPeriods periods;

    Restraints(RestraintMapper mapper, Environments environments, ServiceClock clock, ClosedPeriods periods) {
        this.mapper = mapper;
        this.environments = environments;
        this.clock = clock;
        this.periods = periods;
    }

    public Optional<Hold> hold(long place) {
        return mapper.hold(place).map(Restraints::hold);
    }

    private static Hold hold(RestraintMapper.RestraintRow row) {
        return new Hold(row.reason(), row.by(), row.at());
    }

    /** The closure in force. */
    public Optional<Closure> closure(long environment) {
        return mapper.closure(environment, clock.now()).map(Restraints::closure);
    }

    private static Closure closure(RestraintMapper.RestraintRow row) {
        return new Closure(row.reason(), row.by(), row.at(), Optional.ofNullable(row.until()));
    }

    /** The closed period that is now. */
    public Optional<ClosedPeriod> period(long environment) {
        return periods.at(environments.byId(environment), clock.now())
                .map(period -> new ClosedPeriod(period.summary(), period.until()));
    }

    /** @param beside what goes there in the same set, by component */
    public GateFacts.Around around(Environments.Place place, Environments.Environment environment,
            Versions.Version version, Kind kind, Map<String, String> beside) {
        Map<String, String> requires = version.recipe().map(recipe -> recipe.requires()).orElse(Map.of());
        Map<String, String> there = new LinkedHashMap<>();
        requires.keySet().forEach(other -> Optional.ofNullable(beside.get(other))
                .or(() -> mapper.live(place.environmentId(), other)).ifPresent(number -> there.put(other, number)));
        boolean waits = kind == Kind.PROMOTION && !environment.rules().takesOver()
                && !environment.rules().toGoOn(place.component()).isEmpty();
        List<RestraintMapper.RestraintRow> rows = mapper.restrained(place.id(), place.environmentId(), clock.now());
        Optional<Hold> held = rows.stream().filter(row -> !row.closes()).findFirst().map(Restraints::hold);
        Optional<Closure> closed = rows.stream().filter(RestraintMapper.RestraintRow::closes).findFirst()
                .map(Restraints::closure);
        return new Surroundings(place.environment(), ZoneId.of(environment.zone()), version.number(),
                kind == Kind.ROLLBACK,
                held.map(hold -> new Surroundings.Hold(hold.reason(), hold.by(), hold.at())),
                closed.map(closure -> new Surroundings.Closure(closure.reason(),
                        Optional.of(closure.by()), closure.until())),
                periods.at(environment, clock.now())
                        .map(period -> new Surroundings.Closure(period.summary(), Optional.empty(),
                                Optional.of(period.until()))),
                requires, there, waits ? mapper.tested(place.id()) : Optional.empty()).around();
    }
}

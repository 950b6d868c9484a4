package dev.paseo.service.gate;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.semver4j.Semver;
import org.springframework.stereotype.Component;

/** What restrains a place besides its rules: holds, closures, and what its versions need beside them. */
@Component
public class Restraints {

    /** Why nothing goes there by itself. */
    public record Hold(String reason, String by, Instant at) {}

    /** @param until when it ends by itself */
    public record Closure(String reason, String by, Instant at, Optional<Instant> until) {}

    private final RestraintMapper mapper;
    private final Environments environments;
    private final dev.paseo.service.clock.ServiceClock clock;
    private final ClosedPeriods periods;

    Restraints(RestraintMapper mapper, Environments environments, dev.paseo.service.clock.ServiceClock clock, ClosedPeriods periods) {
        this.mapper = mapper;
        this.environments = environments;
        this.clock = clock;
        this.periods = periods;
    }

    public Optional<Hold> hold(long place) {
        return mapper.hold(place).map(row -> new Hold(row.reason(), row.by(), row.at()));
    }

    /** The closure in force. */
    public Optional<Closure> closure(long environment) {
        return mapper.closure(environment, clock.now()).map(row -> new Closure(row.reason(), row.by(), row.at(), Optional.ofNullable(row.until())));
    }

    /** @param beside what goes there in the same set, by component */
    GateFacts.Around around(Environments.Place place, Versions.Sealed version, Kind kind, Map<String, String> beside) {
        Environments.Known environment = environments.byId(place.environmentId());
        DateTimeFormatter time = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm zzz", Locale.ENGLISH).withZone(ZoneId.of(environment.zone()));
        Optional<String> held = hold(place.id()).map(hold -> "Held by " + hold.by() + " since " + time.format(hold.at()) + ": \"" + hold.reason() + "\".");
        Optional<GateFacts.Closed> closed = closure(place.environmentId()).map(closure -> new GateFacts.Closed(place.environment() + " is closed by " + closure.by()
                        + closure.until().map(end -> " until " + time.format(end)).orElse("") + ": \"" + closure.reason() + "\".", closure.until()))
                .or(() -> periods.at(environment, clock.now()).map(period -> new GateFacts.Closed(place.environment() + " is closed until " + time.format(period.until())
                        + ": \"" + period.summary() + "\".", Optional.of(period.until()))));
        Map<String, String> requires = kind == Kind.ROLLBACK ? Map.of() : version.recipe().map(recipe -> recipe.requires()).orElse(Map.of());
        List<GateFacts.Requirement> requirements = requires.entrySet().stream().map(each -> requirement(place, each.getKey(), each.getValue(), Optional.ofNullable(beside.get(each.getKey())))).toList();
        boolean waits = kind == Kind.PROMOTION && !environment.rules().takesOver() && !environment.rules().toGoOn(place.component()).isEmpty();
        return new GateFacts.Around(kind == Kind.ROLLBACK, held, closed, requirements, waits ? mapper.tested(place.id()).filter(number -> !number.equals(version.number())) : Optional.empty());
    }

    private GateFacts.Requirement requirement(Environments.Place place, String component, String range, Optional<String> beside) {
        Optional<String> live = beside.or(() -> mapper.live(place.environmentId(), component));
        boolean met = live.map(number -> Semver.coerce(number)).filter(semver -> semver != null && semver.satisfies(range)).isPresent();
        return new GateFacts.Requirement(component, range, live, met);
    }
}

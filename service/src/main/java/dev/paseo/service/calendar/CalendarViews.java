package dev.paseo.service.calendar;

import dev.paseo.core.text.Word;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.Hours;
import dev.paseo.language.calendar.Feed;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.restraint.ClosedPeriods;
import dev.paseo.service.settings.Settings;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** When an environment is open, closed and deployed to. */
@Component
class CalendarViews {

    private static final Duration BACK = Duration.ofDays(7);
    private static final Duration AHEAD = Duration.ofDays(21);

    /** From an instant until another; {@code until} is absent where nobody knows. */
    record TimeSpanView(Instant from, Optional<Instant> until, String words) {}

    record DeploymentSpan(long deployment, String component, String version, Kind kind, DeploymentStatus status,
            Instant from,
            Optional<Instant> until) {}

    /**
     * A week back and three ahead.
     *
     * @param hours whether opening hours are set at all
     * @param open  the opening hours
     */
    record CalendarView(Instant now, String zone, boolean hours, List<TimeSpanView> open, List<TimeSpanView> closed,
            List<DeploymentSpan> deployments) {}

    private final CalendarMapper mapper;
    private final Environments environments;
    private final ClosedPeriods periods;
    private final ServiceClock clock;
    private final Settings settings;

    CalendarViews(CalendarMapper mapper, Environments environments, ClosedPeriods periods, ServiceClock clock,
            Settings settings) {
        this.mapper = mapper;
        this.environments = environments;
        this.periods = periods;
        this.clock = clock;
        this.settings = settings;
    }

    /**
     * The same as an iCalendar feed, for calendars that people have; signed in with HTTP Basic, the password being a
     * personal token.
     */
    String feed(String name) {
        CalendarView view = view(name);
        List<Feed.CalendarEvent> events = new ArrayList<>();
        view.open().forEach(each -> events.add(new Feed.CalendarEvent("open-" + each.from() + "@" + name, each.from(),
                each.until().orElse(each.from()), name + " is open", "")));
        view.closed()
                .forEach(each -> events.add(new Feed.CalendarEvent("closed-" + each.from() + "@" + name, each.from(),
                        each.until().orElse(each.from().plus(AHEAD)), name + " is closed: " + each.words(), "")));
        view.deployments()
                .forEach(each -> events
                        .add(new Feed.CalendarEvent("deployment-" + each.deployment() + "@" + name, each.from(),
                                each.until().orElse(view.now()),
                                each.component() + " " + each.version() + " into " + name + ": "
                                        + Word.of(each.status()),
                                settings.address() + "/deployments/" + each.deployment())));
        return Feed.write(name, view.now(), events);
    }

    CalendarView view(String name) {
        Environments.Environment known = environments.named(name);
        Instant now = clock.now();
        Instant from = now.minus(BACK);
        Instant until = now.plus(AHEAD);
        Optional<Hours> hours = Optional.of(known.rules().gates().toEnter()).flatMap(GateRules::open);
        List<TimeSpanView> closed = new ArrayList<>();
        periods.around(known, now).stream()
                .filter(period -> period.from().isBefore(until) && period.until().isAfter(from))
                .forEach(period -> closed
                        .add(new TimeSpanView(period.from(), Optional.of(period.until()), period.summary())));
        mapper.closures(known.id(), from, until)
                .forEach(row -> closed.add(new TimeSpanView(row.at(),
                        Optional.ofNullable(row.liftedAt()).or(() -> Optional.ofNullable(row.until())),
                        row.reason() + " (" + row.by() + ")")));
        return new CalendarView(now, known.zone(), hours.isPresent(),
                hours.map(each -> openings(each, ZoneId.of(known.zone()), from, until)).orElse(List.of()), closed,
                mapper.deployments(known.id(), from, until).stream()
                        .map(row -> new DeploymentSpan(row.id(), row.component(), row.version(), row.kind(),
                                row.status(), row.startedAt(),
                                Optional.ofNullable(row.endedAt())))
                        .toList());
    }

    private static List<TimeSpanView> openings(Hours hours, ZoneId zone, Instant from, Instant until) {
        List<TimeSpanView> open = new ArrayList<>();
        for (LocalDate day = from.atZone(zone).toLocalDate(); !day.isAfter(until.atZone(zone).toLocalDate()); day = day
                .plusDays(1)) {
            hours.on(day).forEach(
                    opening -> open.add(new TimeSpanView(opening.from(), Optional.of(opening.until()), "open")));
        }
        return open;
    }
}

package dev.paseo.service.pace;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.pace.TimePart;
import dev.paseo.core.text.Word;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.pace.PaceMapper.Asked;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How fast and how safely versions move; of places and labels, never of people. */
@RestController
@RequestMapping("/api/v1/pace")
class PaceController {

    private static final Duration USUAL = Duration.ofDays(90);
    private static final Duration LONGEST = Duration.ofDays(400);
    /** No more are exported at once. */
    private static final int MOST = 100_000;

    private final Paces paces;
    private final Components components;
    private final Environments environments;
    private final ServiceClock clock;

    PaceController(Paces paces, Components components, Environments environments, ServiceClock clock) {
        this.paces = paces;
        this.components = components;
        this.environments = environments;
        this.clock = clock;
    }

    private Asked asked(Person person, Wanted wanted, int limit) {
        Permission.require(person, Action.LOOK, wanted.component(), wanted.environment());
        Period period = period(wanted.since(), wanted.until(), clock.now());
        return new Asked(wanted.component().map(name -> components.named(name).id()).orElse(null),
                wanted.environment().map(name -> environments.named(name).id()).orElse(null),
                wanted.label().orElse(null), period.since(), period.until(), limit);
    }

    /** A time that is looked at. */
    record Period(Instant since, Instant until) {}

    static Period period(Optional<Instant> since, Optional<Instant> until, Instant now) {
        Instant end = until.orElse(now);
        Instant begin = since.orElse(end.minus(USUAL));
        if (!begin.isBefore(end) || Duration.between(begin, end).compareTo(LONGEST) > 0) {
            throw Refusal.invalid("/since", "should be before until, and at most " + LONGEST.toDays()
                    + " days before it");
        }
        return new Period(begin, end);
    }

    private record Wanted(Optional<String> component, Optional<String> label, Optional<String> environment,
            Optional<Instant> since, Optional<Instant> until) {}

    /**
     * How long versions take into each environment and where the time goes, how often, and how many were gone back
     * from; at most 400 days.
     *
     * @param since not there: 90 days before the end
     * @param until not there: now
     */
    @GetMapping
    Paces.PaceView pace(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<String> environment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until) {
        return paces.of(asked(person, new Wanted(component, label, environment, since, until), 0));
    }

    /**
     * The promotions behind the figures, those that took longest first.
     *
     * @param since not there: 90 days before the end
     * @param until not there: now
     * @param limit at most so many, 1 to 500
     */
    @GetMapping("/lead-times")
    List<Paces.LeadTimeView> leadTimes(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<String> environment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            @RequestParam(defaultValue = "50") int limit) {
        return paces.slowest(asked(person, new Wanted(component, label, environment, since, until),
                Math.clamp(limit, 1, 500)));
    }

    /**
     * The same as a table for a spreadsheet (RFC 4180), at most 100,000 lines; times in seconds.
     *
     * @param since not there: 90 days before the end
     * @param until not there: now
     */
    @GetMapping(value = "/table", produces = "text/csv")
    void table(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<String> environment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            HttpServletResponse response) throws IOException {
        List<Paces.LeadTimeView> leadTimes = paces.slowest(asked(person,
                new Wanted(component, label, environment, since, until), MOST));
        response.setContentType("text/csv;charset=utf-8");
        response.setHeader("Content-Disposition", "attachment; filename=\"pace.csv\"");
        response.setCharacterEncoding(StandardCharsets.UTF_8);
        PrintWriter out = response.getWriter();
        out.print("deployment,component,version,environment,live,seconds," + Arrays.stream(TimePart.values())
                .map(Word::of).collect(Collectors.joining(",")) + ",bad for\r\n");
        leadTimes.forEach(
                each -> out.print(each.deployment() + "," + each.component() + "," + quoted(each.version()) + ","
                        + each.environment() + "," + each.live() + "," + each.seconds() + ","
                        + each.parts().stream().map(part -> Long.toString(part.seconds()))
                                .collect(Collectors.joining(","))
                        + "," + each.badFor().map(seconds -> Long.toString(seconds)).orElse("") + "\r\n"));
    }

    /** Of a version's number, whose form a repository gives: a spreadsheet must not take it for a formula. */
    private static String quoted(String text) {
        String safe = text.isEmpty() || "=+-@\t\r".indexOf(text.charAt(0)) < 0 ? text : "'" + text;
        return "\"" + safe.replace("\"", "\"\"") + "\"";
    }
}

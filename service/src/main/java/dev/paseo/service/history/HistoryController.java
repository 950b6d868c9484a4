package dev.paseo.service.history;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.history.Differences;
import dev.paseo.core.history.Happening;
import dev.paseo.core.history.Mark;
import dev.paseo.core.history.What;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What happened to what is live, everywhere, and what was live at other moments. */
@RestController
@RequestMapping("/api/v1/history")
class HistoryController {

    /**
     * Something that happened.
     *
     * @param component not there: it happened to the whole environment
     * @param status    how a deployment ended that did not go live
     * @param by        who asked for it or did it; not there: nobody, it came by itself
     * @param host      of which it is
     * @param emergency whether it went past its gate
     */
    record HappenedView(Instant at, What what, Optional<String> component, String environment,
            Optional<String> version, Optional<Long> deployment, Optional<DeploymentStatus> status, Optional<String> by,
            Optional<String> host, Optional<String> reason, boolean emergency) {}

    /** @param next goes on after these, as {@code after}; absent where there are no more */
    record HistoryView(List<HappenedView> happened, Optional<String> next) {}

    /**
     * What is live in a place.
     *
     * @param deployment by which it is
     */
    record LiveThenView(String version, long deployment) {}

    /**
     * A place where something else is live.
     *
     * @param before      not there: nothing was
     * @param after       not there: nothing is
     * @param sameVersion whether only the deployment is another
     */
    record ChangedPlaceView(String component, String environment, Optional<LiveThenView> before,
            Optional<LiveThenView> after, boolean sameVersion) {}

    /** What was live otherwise at a second moment. */
    record ChangedBetweenView(Instant since, Instant until, List<ChangedPlaceView> changed) {}

    /**
     * What a host had at a moment.
     *
     * @param from since when
     */
    record OnHostThenView(String host, String component, String environment, String version, long deployment,
            Instant from) {}

    /** @param next goes on after these, as {@code after}; absent where there are no more */
    record HostsThenView(Instant moment, List<OnHostThenView> hosts, Optional<String> next) {}

    private final Histories histories;
    private final Lanes lanes;
    private final Moments moments;
    private final HistoryQuery query;

    HistoryController(Histories histories, Lanes lanes, Moments moments, HistoryQuery query) {
        this.histories = histories;
        this.lanes = lanes;
        this.moments = moments;
        this.query = query;
    }

    /**
     * What happened: what went live, what did not, holds, closures and troubles of hosts; the newest first.
     *
     * @param host  only what concerned this host
     * @param by    only what this account asked for, decided or did
     * @param since from this moment on
     * @param until before this moment
     * @param after goes on after what the next of an answer told
     * @param limit at most so many, 1 to 200
     */
    @GetMapping
    HistoryView history(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> environment, @RequestParam Optional<String> host,
            @RequestParam Optional<String> by, @RequestParam Optional<Instant> since,
            @RequestParam Optional<Instant> until, @RequestParam Optional<String> after,
            @RequestParam(defaultValue = "50") int limit) {
        Permission.require(person, Action.LOOK, component, environment);
        Optional<Mark> mark = after.map(cursor -> Mark.read(cursor)
                .orElseThrow(() -> Refusal.invalid("/after", "should be what next told")));
        var page = histories.page(query.of(new HistoryQuery.Wanted(component, environment, host, by, since, until),
                Math.clamp(limit, 1, 200)), new Histories.Names(component, environment, host), mark);
        return new HistoryView(page.happenings().stream().map(HistoryController::view).toList(),
                page.next().map(Mark::cursor));
    }

    static HappenedView view(Happening each) {
        return new HappenedView(each.mark().at(), each.what(), each.component(), each.environment(), each.version(),
                each.deployment(), each.status(), each.by(), each.host(), each.reason(), each.emergency());
    }

    /**
     * What was live over a time, place by place; at most 50 places at once, and 400 days.
     *
     * @param host  only places on this host
     * @param since not there: 7 days before the end
     * @param until not there: now
     * @param after goes on after what the next of an answer told
     */
    @GetMapping("/lanes")
    Lanes.LanesView lanes(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> environment, @RequestParam Optional<String> host,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            @RequestParam(defaultValue = "") String after) {
        Permission.require(person, Action.LOOK, component, environment);
        return lanes.of(query.window(new HistoryQuery.Wanted(component, environment, host, Optional.empty(), since,
                until)), host, after);
    }

    /**
     * What was live otherwise at a second moment than at a first, everywhere.
     *
     * @param since the first moment
     * @param until the second one; not there: now
     */
    @GetMapping("/changes")
    ChangedBetweenView changes(@AuthenticationPrincipal Person person, @RequestParam Instant since,
            @RequestParam Optional<Instant> until) {
        Permission.require(person, Action.LOOK);
        Instant end = until.orElseGet(query::now);
        if (end.isBefore(since)) {
            throw Refusal.invalid("/until", "should not be before since");
        }
        return new ChangedBetweenView(since, end, moments.between(since, end).stream()
                .map(each -> new ChangedPlaceView(each.place().component(), each.place().environment(),
                        each.before().map(HistoryController::then), each.after().map(HistoryController::then),
                        each.sameVersion()))
                .toList());
    }

    private static LiveThenView then(Differences.LiveThen live) {
        return new LiveThenView(live.version(), live.deployment());
    }

    /**
     * What hosts had at a moment; at most 500 at once.
     *
     * @param host  only this one
     * @param after goes on after what the next of an answer told
     */
    @GetMapping("/hosts")
    HostsThenView hosts(@AuthenticationPrincipal Person person, @RequestParam Instant moment,
            @RequestParam(defaultValue = "") String host, @RequestParam(defaultValue = "") String after) {
        Permission.require(person, Action.LOOK);
        List<OnHostThenView> hosts = moments.hosts(moment, host, after);
        return new HostsThenView(moment, hosts, moments.next(hosts));
    }
}

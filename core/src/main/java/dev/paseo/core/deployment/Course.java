package dev.paseo.core.deployment;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * How far a deployment is on its plan.
 *
 * @param at      which part of the plan is being done, from 0; its length when all is done
 * @param running what is being done once for the whole place
 * @param until   when a pause ends
 * @param share   percent of the traffic that the new side has
 * @param sides   the side that is filled, and the one that had the traffic before
 * @param mayFail how many hosts may fail without ending it
 * @param changed whether something that is done once for the place has begun
 * @param unsettled the part of the plan, a test of what is live, that failed, so that the walk does not go on from here
 */
public record Course(List<Movement> plan, int at, Optional<HostTask> running, Optional<Instant> until, int share,
        Sides sides, int mayFail,
        boolean changed, Optional<Integer> unsettled) {

    /** The side that is filled, and the one that had the traffic before; empty where the place has none. */
    public record Sides(Optional<String> filled, Optional<String> before) {
        public static final Sides NONE = new Sides(Optional.empty(), Optional.empty());
    }

    public Course {
        plan = List.copyOf(plan);
    }

    public static Course of(List<Movement> plan, Sides sides, int mayFail) {
        return new Course(plan, 0, Optional.empty(), Optional.empty(), 0, sides, mayFail, false, Optional.empty());
    }

    /** As states were kept before there were plans: installed together, checked together. */
    static Course before(List<HostState> hosts) {
        return of(Plan.of(Plan.Recipe.PLAIN,
                hosts.stream().map(host -> new Plan.Host(host.host(), Optional.empty(), false)).toList(),
                Optional.empty()), Sides.NONE, 0);
    }

    public Optional<Movement> now() {
        return at < plan.size() ? Optional.of(plan.get(at)) : Optional.empty();
    }

    boolean is(Movement.What what) {
        return now().filter(movement -> movement.what() == what).isPresent();
    }

    /** Whether hosts are still to be installed after the part that is being done. */
    boolean moreHosts() {
        return plan.stream().skip(at + 1L).anyMatch(
                movement -> movement.what() == Movement.What.INSTALL || movement.what() == Movement.What.VERIFY);
    }

    Course next() {
        return new Course(plan, at + 1, Optional.empty(), Optional.empty(), share, sides, mayFail, changed, unsettled);
    }

    Course over() {
        return new Course(plan, plan.size(), running, Optional.empty(), share, sides, mayFail, changed, unsettled);
    }

    /** The part at which the walk would go on from here; the plan's end where there is none. */
    int settling() {
        return (int) plan.stream().takeWhile(movement -> movement.what() != Movement.What.SETTLED).count();
    }

    /** The test that is being made has failed: what comes after the walk's going on is next. */
    Course unsettling() {
        return new Course(plan, settling() + 1, Optional.empty(), Optional.empty(), share, sides, mayFail, changed,
                Optional.of(at));
    }

    Course running(HostTask task) {
        return new Course(plan, at, Optional.of(task), until, share, sides, mayFail, changed, unsettled);
    }

    Course idle() {
        return new Course(plan, at, Optional.empty(), until, share, sides, mayFail, changed, unsettled);
    }

    Course until(Instant end) {
        return new Course(plan, at, running, Optional.of(end), share, sides, mayFail, changed, unsettled);
    }

    Course changing() {
        return new Course(plan, at, running, until, share, sides, mayFail, true, unsettled);
    }

    Course sharing(int percent) {
        return new Course(plan, at, running, until, percent, sides, mayFail, changed, unsettled);
    }
}

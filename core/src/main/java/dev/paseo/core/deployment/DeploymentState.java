package dev.paseo.core.deployment;

import dev.paseo.core.deployment.HostState.Phase;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * All that deciding about a deployment needs.
 *
 * @param line      the line of its version
 * @param order     the version's position in its line; a greater one is newer
 * @param automatic whether the walk, not a person, asked for it
 * @param onFailure what a failure leads to
 * @param wayBack   how a host that was touched is brought back
 * @param ending    why it is on its way back, once it is
 * @param course    its plan, and how far it is
 * @param terms     what else was settled when it was requested
 */
public record DeploymentState(
        long id, String version, long line, long order, Kind kind, boolean automatic, DeploymentStatus status,
        List<HostState> hosts, OnFailure onFailure, WayBack wayBack, Optional<String> ending, Course course,
        Terms terms) {

    /** What a failure leads to. */
    public enum OnFailure { UNDO, STOP }

    /**
     * How a host is brought back: by the recipe of what was live, by this recipe's removal, or not at all; BARRED: an
     * irreversible change lies between; TAKEN_AWAY: by this recipe's removal too, because it was asked for.
     */
    public enum WayBack {
        PREVIOUS, REMOVAL, NONE, BARRED, TAKEN_AWAY;

        /** Whether nothing is left of it on a host afterwards. */
        public boolean removes() {
            return this == REMOVAL || this == TAKEN_AWAY;
        }
    }

    /**
     * @param emergency      it goes past unmet criteria, hold and closed, never past a block
     * @param noWayBackBefore position in the line before which an undo may not go
     * @param takesOver       although automatic, it does not wait until what is live has been watched and tested
     * @param unchecked       its recipe has no checks of a host: one that has it is good
     */
    public record Terms(boolean emergency, Optional<Long> noWayBackBefore, boolean takesOver,
            Optional<Boolean> unchecked) {
        public static final Terms PLAIN = new Terms(false, Optional.empty(), false, Optional.empty());
    }

    /** A state kept before there were plans has neither course nor terms. */
    public DeploymentState(long id, String version, long line, long order, Kind kind, boolean automatic,
            DeploymentStatus status,
            List<HostState> hosts, OnFailure onFailure, WayBack wayBack, Optional<String> ending,
            @Nullable Course course, @Nullable Terms terms) {
        this.id = id;
        this.version = version;
        this.line = line;
        this.order = order;
        this.kind = kind;
        this.automatic = automatic;
        this.status = status;
        this.hosts = List.copyOf(hosts);
        this.onFailure = onFailure;
        this.wayBack = wayBack;
        this.ending = ending;
        this.course = course == null ? Course.before(hosts) : course;
        this.terms = terms == null ? Terms.PLAIN : terms;
    }

    public DeploymentState to(DeploymentStatus next) {
        return new DeploymentState(id, version, line, order, kind, automatic, next, hosts, onFailure, wayBack, ending,
                course, terms);
    }

    DeploymentState because(String why) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, wayBack,
                ending.or(() -> Optional.of(why)), course, terms);
    }

    DeploymentState withEnding(String words) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, wayBack,
                Optional.of(words), course, terms);
    }

    DeploymentState withHost(String name, UnaryOperator<HostState> change) {
        return withHosts(hosts.stream().map(host -> host.host().equals(name) ? change.apply(host) : host).toList());
    }

    DeploymentState withHosts(List<HostState> changed) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, changed, onFailure, wayBack,
                ending, course, terms);
    }

    DeploymentState on(Course next) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, wayBack, ending,
                next, terms);
    }

    /** The same request, with the plan that it would follow if it began now. */
    public DeploymentState planned(List<HostState> now, Course plan) {
        return withHosts(now).on(plan);
    }

    /** The same request with what is live now to go back to. */
    DeploymentState backTo(Optional<PlaceSnapshot.Live> live) {
        WayBack back = live.map(now -> barred(now) ? WayBack.BARRED : WayBack.PREVIOUS).orElse(wayBack);
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, back, ending,
                course, terms);
    }

    DeploymentState goingBackBy(WayBack way) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, way, ending,
                course, terms);
    }

    private boolean barred(PlaceSnapshot.Live live) {
        return terms.noWayBackBefore().filter(bar -> new NoWayBack(line, bar).bars(live.line(), live.order()))
                .isPresent();
    }

    public Optional<HostState> host(String name) {
        return hosts.stream().filter(host -> host.host().equals(name)).findFirst();
    }

    boolean anyBusy() {
        return course.running().isPresent() || hosts.stream().anyMatch(host -> host.phase().busy());
    }

    boolean anyTouched() {
        return hosts.stream().anyMatch(HostState::touched);
    }

    long failedHosts() {
        return hosts.stream().filter(host -> host.phase() == Phase.FAILED).count();
    }

    /** Whether a person is asked whether it goes on. */
    public boolean asks() {
        return status.active() && ending.isEmpty() && course.is(Movement.What.QUESTION);
    }

    /** The condition over facts that has to hold before it goes on. */
    public Optional<String> factsAsked() {
        return status.active() && ending.isEmpty()
                ? course.now().filter(part -> part.what() == Movement.What.FACTS).flatMap(Movement::name)
                : Optional.empty();
    }

    /** Whether it is live and one of its hosts is being brought to it again. */
    public boolean tending() {
        return status == DeploymentStatus.LIVE
                && hosts.stream().anyMatch(host -> host.phase() == Phase.INSTALLING || host.phase() == Phase.CHECKING);
    }
}

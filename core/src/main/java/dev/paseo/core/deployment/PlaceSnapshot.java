package dev.paseo.core.deployment;

import java.time.Instant;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * One component in one environment, as far as deciding needs it.
 *
 * @param live     what is live
 * @param open     the deployments that have not ended, and the live one, in the order of their requests; those that
 *                 ended by the last decision too
 * @param replaces what was live when a deployment began, and is live again where that one is undone, by its number
 * @param hosts    what each host has, by its name; one that is not in it has nothing
 */
public record PlaceSnapshot(Optional<Live> live, List<DeploymentState> open, Map<Long, Live> replaces,
        Map<String, Has> hosts) {

    /** Nothing was ever there. */
    public static final PlaceSnapshot EMPTY = new PlaceSnapshot(Optional.empty(), List.of());

    /**
     * What is live: the deployment, and its version's line and position in it.
     *
     * @param side the side that has the traffic, where the place has sides
     */
    public record Live(long deployment, String version, long line, long order, Optional<String> side) {}

    /**
     * What a deployment gave a host.
     *
     * @param known false where its task ended half way, so that nobody knows what is there
     * @param since when it was given: the same once more is given anew
     */
    public record Has(long deployment, boolean known, Instant since) {}

    public PlaceSnapshot {
        open = List.copyOf(open);
        replaces = Map.copyOf(replaces);
        hosts = Map.copyOf(hosts);
    }

    /** As far as it matters where no host has anything yet. */
    public PlaceSnapshot(Optional<Live> live, List<DeploymentState> open) {
        this(live, open, Map.of(), Map.of());
    }

    public Optional<DeploymentState> deployment(long id) {
        return open.stream().filter(deployment -> deployment.id() == id).findFirst();
    }

    /** Whether hosts of the place are being changed. */
    boolean busy() {
        return open.stream().anyMatch(deployment -> deployment.status().active() || deployment.tending());
    }

    PlaceSnapshot with(DeploymentState changed) {
        return new PlaceSnapshot(live,
                open.stream().map(deployment -> deployment.id() == changed.id() ? changed : deployment).toList(),
                replaces, hosts);
    }

    PlaceSnapshot plus(DeploymentState added) {
        return new PlaceSnapshot(live, Stream.concat(open.stream(), Stream.of(added)).toList(), replaces, hosts);
    }

    /** It begins: what is live now is what it would go back to. */
    PlaceSnapshot beginning(DeploymentState now) {
        Map<Long, Live> known = new LinkedHashMap<>(replaces);
        live.ifPresent(before -> known.put(now.id(), before));
        return new PlaceSnapshot(live, open, known, hosts).with(now);
    }

    /**
     * It is live from now on, and what was live before is replaced; one without sides leaves the traffic where it was.
     */
    PlaceSnapshot living(DeploymentState now) {
        PlaceSnapshot replaced = live.flatMap(before -> deployment(before.deployment()))
                .filter(before -> before.id() != now.id() && before.status() == DeploymentStatus.LIVE)
                .map(before -> with(before.to(DeploymentStatus.REPLACED))).orElse(this);
        Optional<String> side = now.course().sides().filled().or(() -> live.flatMap(Live::side));
        return replaced.nowLive(Optional.of(new Live(now.id(), now.version(), now.line(), now.order(), side)));
    }

    /**
     * It was live and is no more: what it replaced is live again, on the side that had the traffic; or nothing, where
     * it was removed.
     */
    PlaceSnapshot takenBack(DeploymentState gone) {
        Optional<String> side = gone.course().sides().before().or(() -> live.flatMap(Live::side));
        return nowLive(gone.wayBack().removes() ? Optional.empty() : Optional.ofNullable(replaces.get(gone.id()))
                .map(before -> new Live(before.deployment(), before.version(), before.line(), before.order(), side)));
    }

    private PlaceSnapshot nowLive(Optional<Live> now) {
        return new PlaceSnapshot(now, open, replaces, hosts);
    }

    /** After a task on a host: it has what the deployment gave it, what was live before, nothing, or nobody knows. */
    PlaceSnapshot having(Consequence.HostHas has, Instant now) {
        Map<String, Has> known = new LinkedHashMap<>(hosts);
        known.remove(has.host());
        switch (has.content()) {
            case THIS_VERSION -> known.put(has.host(), new Has(has.deployment(), true, now));
            case PREVIOUS_VERSION -> Optional.ofNullable(replaces.get(has.deployment()))
                    .ifPresent(before -> known.put(has.host(), new Has(before.deployment(), true, now)));
            case UNKNOWN -> known.put(has.host(), new Has(has.deployment(), false, now));
            case NOTHING -> {}
        }
        return new PlaceSnapshot(live, open, replaces, known);
    }

    /** The same with other plans for those that have not begun. */
    public PlaceSnapshot planned(UnaryOperator<DeploymentState> plan) {
        return new PlaceSnapshot(live, open.stream()
                .map(deployment -> deployment.status().ahead() ? plan.apply(deployment) : deployment).toList(),
                replaces, hosts);
    }

    /** When time alone will move something; what has ended is moved by nothing. */
    public Optional<Instant> wake() {
        return open.stream().filter(deployment -> deployment.ending().isEmpty())
                .flatMap(deployment -> deployment.course().until().stream()).min(Comparator.naturalOrder());
    }
}

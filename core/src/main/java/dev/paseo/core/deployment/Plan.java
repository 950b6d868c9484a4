package dev.paseo.core.deployment;

import dev.paseo.core.deployment.Movement.What;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Makes the plan of a deployment: everything that will happen, in its order, before anything does. */
public final class Plan {

    private Plan() {}

    /**
     * What of the recipe bears on the plan.
     *
     * @param keepChecking how long going live can still be taken back by its checks
     */
    public record Recipe(Strategy strategy, boolean onceBefore, boolean onceAfter, boolean whole,
            Optional<Duration> keepChecking,
            List<String> tests) {
        public Recipe {
            tests = List.copyOf(tests);
        }

        /** Together, and nothing else. */
        public static final Recipe PLAIN = new Recipe(new Strategy.Together(), false, false, false, Optional.empty(),
                List.of());
    }

    /**
     * A host of the place.
     *
     * @param side which side it is on; empty where the place has no sides
     * @param has  it has this very version already, with the settings and secrets that it would be given now
     */
    public record Host(String name, Optional<String> side, boolean has) {

        /** @param has what it has; empty where that is nothing, or not known */
        public static Host of(String name, Optional<String> side, Optional<HostContent> has, HostContent given) {
            return new Host(name, side, has.equals(Optional.of(given)));
        }
    }

    /**
     * @param hosts    those that take part, in the order of the place
     * @param liveSide the side that has the traffic now
     */
    public static List<Movement> of(Recipe recipe, List<Host> hosts, Optional<String> liveSide) {
        List<Movement> plan = new ArrayList<>();
        if (recipe.onceBefore()) {
            plan.add(Movement.of(What.ONCE_BEFORE));
        }
        Duration oldSideStays = Duration.ZERO;
        switch (fitting(recipe.strategy(), hosts)) {
            case Strategy.Together() -> plan.add(Movement.hosts(What.INSTALL, names(hosts)));
            case Strategy.Rolling rolling -> roll(rolling, names(hosts), plan);
            case Strategy.BlueGreen(Duration stays) -> {
                fill(hosts, liveSide, plan);
                plan.add(Movement.share(100));
                oldSideStays = stays;
            }
            case Strategy.Canary(List<Strategy.Share> shares, Duration stays) -> {
                fill(hosts, liveSide, plan);
                if (liveSide.isPresent()) {
                    shares.forEach(share -> share(share, plan));
                }
                plan.add(Movement.share(100));
                oldSideStays = stays;
            }
        }
        if (recipe.onceAfter()) {
            plan.add(Movement.of(What.ONCE_AFTER));
        }
        if (recipe.whole()) {
            plan.add(Movement.of(What.WHOLE));
        }
        plan.add(Movement.of(What.LIVE));
        recipe.keepChecking().ifPresent(length -> plan.add(Movement.lasting(What.WATCH, length)));
        recipe.tests().forEach(test -> plan.add(Movement.test(test)));
        plan.add(Movement.of(What.SETTLED));
        clear(hosts, liveSide, oldSideStays, plan);
        return List.copyOf(plan);
    }

    /** The old side is there for a while, to go back to, and then cleared. */
    private static void clear(List<Host> hosts, Optional<String> liveSide, Duration stays, List<Movement> plan) {
        List<String> old = hosts.stream().filter(host -> liveSide.isPresent() && host.side().equals(liveSide))
                .map(Host::name).toList();
        if (stays.isPositive() && !old.isEmpty()) {
            plan.add(Movement.lasting(What.PAUSE, stays));
            plan.add(Movement.hosts(What.CLEAR, old));
        }
    }

    /** Where the place has no sides, there is nothing to switch between. */
    public static Strategy fitting(Strategy strategy, List<Host> hosts) {
        return strategy.sided() && hosts.stream().allMatch(host -> host.side().isEmpty()) ? new Strategy.Together()
                : strategy;
    }

    /** How many of these hosts may fail: never all of them, or a version that works nowhere would be live. */
    public static int mayFail(Strategy strategy, List<Host> hosts) {
        return strategy instanceof Strategy.Rolling rolling ? Math.min(rolling.mayFail(), hosts.size() - 1) : 0;
    }

    private static List<String> names(List<Host> hosts) {
        return hosts.stream().map(Host::name).toList();
    }

    private static void roll(Strategy.Rolling rolling, List<String> inOrder, List<Movement> plan) {
        List<String> hosts = rolling.reversed() ? inOrder.reversed() : inOrder;
        for (int from = 0; from < hosts.size(); from += rolling.batch()) {
            if (from > 0 && rolling.pause().isPositive()) {
                plan.add(Movement.lasting(What.PAUSE, rolling.pause()));
            }
            plan.add(Movement.hosts(What.INSTALL, hosts.subList(from, Math.min(hosts.size(), from + rolling.batch()))));
        }
    }

    /** The side without traffic gets the version, unless all of it has it already. */
    private static void fill(List<Host> hosts, Optional<String> liveSide, List<Movement> plan) {
        Optional<String> idle = idleSide(hosts, liveSide);
        List<Host> filled = hosts.stream().filter(host -> host.side().equals(idle)).toList();
        boolean there = filled.stream().allMatch(Host::has);
        plan.add(Movement.hosts(there ? What.VERIFY : What.INSTALL, names(filled)));
    }

    /** The side that a deployment fills: not the live one, else the first. Empty where the place has no sides. */
    public static Optional<String> idleSide(List<Host> hosts, Optional<String> liveSide) {
        return hosts.stream().flatMap(host -> host.side().stream()).filter(side -> !Optional.of(side).equals(liveSide))
                .findFirst();
    }

    private static void share(Strategy.Share share, List<Movement> plan) {
        plan.add(Movement.share(share.percent()));
        if (share.stay().isPositive()) {
            plan.add(Movement.lasting(What.WATCH, share.stay()));
        }
        share.facts().ifPresent(condition -> plan.add(Movement.facts(condition)));
        if (share.asked()) {
            plan.add(Movement.of(What.QUESTION));
        }
    }

    /** Why a place with these hosts cannot take a version by this strategy; empty where it can. */
    public static Optional<String> reasonAgainst(Strategy strategy, List<Host> hosts) {
        if (!fitting(strategy, hosts).sided()) {
            return Optional.empty();
        }
        List<String> sides = hosts.stream().flatMap(host -> host.side().stream()).distinct().toList();
        boolean every = hosts.stream().noneMatch(host -> host.side().isEmpty());
        return sides.size() == 2 && every ? Optional.empty()
                : Optional.of("its strategy fills one side while the other has the traffic: "
                        + "every host there needs a side, of two in all, but "
                        + (every ? "there is only " : "some have none, and the others are on ")
                        + String.join(", ", sides));
    }
}

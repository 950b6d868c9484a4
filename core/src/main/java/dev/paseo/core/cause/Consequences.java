package dev.paseo.core.cause;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What something led to: runs and deployments, each below the one that led to it. */
public final class Consequences {

    private Consequences() {}

    /** A cause as it is kept. */
    public record RecordedCause(long id, Optional<Long> parent, Cause cause) {}

    /**
     * A run, a deployment, or an event that started nothing.
     *
     * @param names by which causes refer to it, see {@link #run} and the others
     * @param cause the id of what led to it
     */
    public record Thing<T>(List<String> names, long cause, T value) {}

    /** Something with what it led to, in the order in which it happened. */
    public record Node<T>(T value, List<Node<T>> led) {}

    public static String run(String component, long number) {
        return "run " + component + "#" + number;
    }

    public static String deployment(long id) {
        return "deployment " + id;
    }

    public static String live(String component, String version, String environment) {
        return "live " + component + " " + version + " " + environment;
    }

    /**
     * Puts each thing below the one that its cause names; what names none of the others stands at the top.
     *
     * @param things in the order in which they happened
     */
    public static <T> List<Node<T>> tree(List<Thing<T>> things, List<RecordedCause> causes) {
        Map<Long, RecordedCause> kept = new LinkedHashMap<>();
        causes.forEach(cause -> kept.put(cause.id(), cause));
        Map<String, Node<T>> named = new LinkedHashMap<>();
        List<Node<T>> nodes = new ArrayList<>();
        for (Thing<T> thing : things) {
            Node<T> node = new Node<>(thing.value(), new ArrayList<>());
            nodes.add(node);
            thing.names().forEach(name -> named.putIfAbsent(name, node));
        }
        List<Node<T>> top = new ArrayList<>();
        for (int at = 0; at < nodes.size(); at++) {
            Node<T> node = nodes.get(at);
            Optional<Node<T>> above = above(kept.get(things.get(at).cause()), kept).map(named::get)
                    .filter(found -> found != node);
            above.map(Node::led).orElse(top).add(node);
        }
        return top;
    }

    private static Optional<String> above(@org.jspecify.annotations.Nullable RecordedCause cause,
            Map<Long, RecordedCause> kept) {
        for (RecordedCause here = cause; here != null; here = here.parent().map(kept::get).orElse(null)) {
            switch (here.cause()) {
                case Cause.Run(String component, long number) -> {
                    return Optional.of(run(component, number));
                }
                case Cause.Live(var component, var version, var environment, long deployment) -> {
                    return Optional.of(deployment(deployment));
                }
                case Cause.Walk(String component, String version, String from) when !from.isEmpty() -> {
                    return Optional.of(live(component, version, from));
                }
                default -> {}
            }
        }
        return Optional.empty();
    }
}

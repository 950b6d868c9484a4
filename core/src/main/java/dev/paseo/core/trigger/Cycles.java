package dev.paseo.core.trigger;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Components that would start each other for ever. */
public final class Cycles {

    private Cycles() {}

    /**
     * The shortest way from a component downstream back to itself: {@code [a, b, a]}.
     *
     * @param downstream which components each one starts
     */
    public static Optional<List<String>> through(String component, Map<String, Set<String>> downstream) {
        Map<String, String> from = new HashMap<>();
        Deque<String> ahead = new ArrayDeque<>(List.of(component));
        while (!ahead.isEmpty()) {
            String here = ahead.removeFirst();
            for (String next : downstream.getOrDefault(here, Set.of())) {
                if (next.equals(component)) {
                    return Optional.of(way(component, here, from));
                }
                if (from.putIfAbsent(next, here) == null) {
                    ahead.addLast(next);
                }
            }
        }
        return Optional.empty();
    }

    private static List<String> way(String component, String last, Map<String, String> from) {
        List<String> way = new ArrayList<>(List.of(component));
        for (String here = last; !here.equals(component); here = from.get(here)) {
            way.addFirst(here);
        }
        way.addFirst(component);
        return way;
    }
}

package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;

import dev.paseo.language.NearestName;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Order;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Reads which stage comes after which: unknown names, cycles, and stages that no run can reach. */
final class OrderReader {

    private static final int MOST_WAITS = 500;

    private final Map<String, Value> stages;
    private final Map<String, Map<String, Value>> bodies;
    private final Map<String, Order> orders = new LinkedHashMap<>();

    OrderReader(Map<String, Value> stages, Map<String, Map<String, Value>> bodies) {
        this.stages = stages;
        this.bodies = bodies;
    }

    Map<String, Order> read() {
        Optional<String> above = Optional.empty();
        for (Map.Entry<String, Map<String, Value>> stage : bodies.entrySet()) {
            orders.put(stage.getKey(), order(stage.getKey(), stage.getValue(), above));
            above = Optional.of(stage.getKey());
        }
        if (!cycle()) {
            unreachable();
        }
        return orders;
    }

    private Order order(String name, Map<String, Value> body, Optional<String> above) {
        boolean says = body.containsKey("after") || body.containsKey("after-any") || body.containsKey("if-failed");
        if (!says && above.filter(previous -> bodies.get(previous).containsKey("if-failed")).isPresent()) {
            stages.get(name)
                    .problemWithName("stands below " + above.get()
                            + ", which runs only if something failed, so it would be skipped on every "
                            + "good run: say what it comes after, such as after: []");
        }
        List<String> after = says ? waits(name, body, "after") : above.stream().toList();
        return new Order(after, waits(name, body, "after-any"), waits(name, body, "if-failed"));
    }

    private List<String> waits(String name, Map<String, Value> body, String key) {
        Optional<Value> value = optional(body, key);
        if (value.isEmpty()) {
            return List.of();
        }
        List<String> names = new ArrayList<>();
        List<Value> items = value.get().items();
        if (items.size() > MOST_WAITS) {
            value.get().problem("names " + items.size() + " stages; at most " + MOST_WAITS + " are allowed");
            return List.of();
        }
        for (Value item : items) {
            item.text().ifPresent(other -> {
                if (other.equals(name)) {
                    item.problem("is the stage itself");
                } else if (!bodies.containsKey(other)) {
                    item.problem("there is no stage " + other + NearestName.hint(other, bodies.keySet()));
                } else if (names.contains(other)) {
                    item.problem("is named twice");
                } else {
                    names.add(other);
                }
            });
        }
        if (items.isEmpty() && value.get().isList() && !key.equals("after")) {
            value.get().problem("is empty; it names at least one stage");
        }
        return names;
    }

    private List<String> waits(String stage) {
        Order order = orders.get(stage);
        Set<String> all = new LinkedHashSet<>(order.after());
        all.addAll(order.afterAny());
        all.addAll(order.ifFailed());
        return List.copyOf(all);
    }

    private record Visit(String stage, ArrayDeque<String> left) {}

    /**
     * Tells the first cycle that it finds, as a path; without recursion, since a file may have thousands of stages.
     */
    private boolean cycle() {
        Set<String> done = new HashSet<>();
        for (String start : bodies.keySet()) {
            Deque<Visit> path = new ArrayDeque<>();
            Set<String> onPath = new LinkedHashSet<>();
            enter(start, path, onPath);
            while (!path.isEmpty()) {
                Visit here = path.peek();
                if (here.left().isEmpty()) {
                    path.pop();
                    onPath.remove(here.stage());
                    done.add(here.stage());
                } else {
                    String next = here.left().poll();
                    if (onPath.contains(next)) {
                        tellCycle(next, List.copyOf(onPath));
                        return true;
                    }
                    if (!done.contains(next)) {
                        enter(next, path, onPath);
                    }
                }
            }
        }
        return false;
    }

    private void enter(String stage, Deque<Visit> path, Set<String> onPath) {
        path.push(new Visit(stage, new ArrayDeque<>(waits(stage))));
        onPath.add(stage);
    }

    private void tellCycle(String stage, List<String> path) {
        List<String> cycle = path.subList(path.indexOf(stage), path.size());
        List<String> shown = cycle.size() > 8 ? cycle.subList(0, 8) : cycle;
        stages.get(stage).problemWithName("waits for itself: " + String.join(" after ", shown)
                + (cycle.size() > 8 ? " after …" : "") + " after " + stage);
    }

    private void unreachable() {
        Set<String> never = new HashSet<>();
        boolean more = true;
        while (more) {
            more = false;
            for (String stage : bodies.keySet()) {
                Optional<String> why = never.contains(stage) ? Optional.empty() : whyNever(stage, never);
                if (why.isPresent()) {
                    stages.get(stage).problemWithName("can never run: " + why.get());
                    more = never.add(stage);
                }
            }
        }
    }

    private Optional<String> whyNever(String stage, Set<String> never) {
        Order order = orders.get(stage);
        Optional<String> dead = order.after().stream().filter(never::contains).findFirst();
        if (dead.isPresent()) {
            return Optional.of("it comes after " + dead.get() + ", which never runs");
        }
        if (!order.ifFailed().isEmpty() && order.ifFailed().stream().allMatch(this::neverFails)) {
            return Optional.of(String.join(", ", order.ifFailed())
                    + " may fail, so that its failure is a warning and counts as no failure");
        }
        boolean both = order.ifFailed().size() == 1 && order.after().containsAll(order.ifFailed());
        return both ? Optional.of(order.ifFailed().getFirst() + " cannot have both passed and failed")
                : Optional.empty();
    }

    private boolean neverFails(String stage) {
        return Optional.ofNullable(bodies.get(stage).get("may-fail"))
                .filter(value -> value.isText() && value.plain().equals("true")).isPresent();
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import tools.jackson.databind.JsonNode;

/** Where the time of a run went, stage by stage and step by step, on one axis. */
final class TimeLines {

    private static final int WIDTH = 50;

    private final Context context;
    private final Instant from;
    private final double millis;

    private TimeLines(Context context, Instant from, Instant to) {
        this.context = context;
        this.from = from;
        this.millis = Math.max(1, Duration.between(from, to).toMillis());
    }

    /** @param now where the axis of a run ends that has not ended */
    static void print(Context context, JsonNode view, Instant now) {
        JsonNode run = view.path("run");
        Instant from = Instant.parse(run.path("createdAt").asString());
        new TimeLines(context, from, moment(run, "endedAt").orElse(now)).print(view);
    }

    private static Optional<Instant> moment(JsonNode of, String field) {
        return of.has(field) ? Optional.of(Instant.parse(of.path(field).asString())) : Optional.empty();
    }

    private void print(JsonNode view) {
        JsonNode run = view.path("run");
        Table table = new Table("", "WAITED", "TOOK", Times.exact(run.path("createdAt")) + ", to " + length(from,
                moment(run, "endedAt").or(() -> Optional.of(from.plusMillis((long) millis)))) + " later");
        moment(run, "startedAt").ifPresent(began -> table.row("its turn", length(from, Optional.of(began)), "",
                bar(Optional.of(from), Optional.of(began), Optional.of(began))));
        view.path("stages").forEach(stage -> stage(table, stage));
        table.print(context.out(), context.ink());
        context.out()
                .println(context.ink().quiet("· waits for its turn or an agent   █ runs   * the end waited for it"));
    }

    private void stage(Table table, JsonNode stage) {
        Optional<Instant> began = moment(stage, "startedAt");
        Optional<Instant> ready = moment(stage, "readyAt").or(() -> began);
        String name = (stage.path("name").asString() + " " + stage.path("variant").asString("")).strip()
                + (stage.path("attempt").asInt() > 1 ? ", attempt " + stage.path("attempt").asString("") : "")
                + (stage.path("critical").asBoolean() ? " *" : "");
        table.row(name, ready.map(since -> length(since, began)).orElse(""),
                began.map(since -> length(since, moment(stage, "endedAt"))).orElse(stage.path("status").asString()),
                bar(ready, began, moment(stage, "endedAt")));
        stage.path("steps").forEach(step -> table.row("  " + step.path("name").asString(), "",
                moment(step, "startedAt").map(since -> length(since, moment(step, "endedAt"))).orElse(""),
                bar(moment(step, "startedAt"), moment(step, "startedAt"), moment(step, "endedAt"))));
    }

    private String length(Instant since, Optional<Instant> until) {
        Duration length = Duration.between(since, until.orElse(from.plusMillis((long) millis)));
        return length.toMillis() < 1000 ? length.toMillis() + " ms" : Times.length(length);
    }

    /** Dots from when it was ready, a bar from when it began. */
    private String bar(Optional<Instant> ready, Optional<Instant> began, Optional<Instant> ended) {
        if (ready.isEmpty()) {
            return "";
        }
        int first = column(ready.get());
        int start = began.map(this::column).orElse(WIDTH);
        int end = began.isEmpty() ? start : ended.map(this::column).orElse(WIDTH);
        boolean runs = began.isPresent() && !began.equals(ended);
        return " ".repeat(first) + "·".repeat(Math.max(0, start - first))
                + (runs ? "█".repeat(Math.max(1, end - start)) : "");
    }

    private int column(Instant at) {
        return (int) Math.clamp(Math.round(Duration.between(from, at).toMillis() / millis * WIDTH), 0, WIDTH);
    }
}

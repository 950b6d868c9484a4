package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

@Command(name = "where", description = "Which version is live where, since when, and what waits.",
        footer = {"", "Examples:", "  paseo where daylight-api", "  paseo where --group-by team",
                "  paseo where --at 2026-05-03T14:05:00Z"})
final class WhereCommand extends ServiceCommand {

    /** States of a run that has come to no version. */
    private static final Set<String> UNSEALED = Set.of("waiting", "running", "cancelling", "failed", "cancelled");

    @Parameters(arity = "0..1", paramLabel = "COMPONENT", description = "only this one")
    private Optional<String> component = Optional.empty();

    @Option(names = "--at", paramLabel = "TIME",
            description = "what was live then; ISO 8601, such as 2026-05-03T14:05:00Z, or how long ago, such as 12h")
    private Optional<String> at = Optional.empty();

    @Option(names = "--changed-since", paramLabel = "TIME",
            description = "what is live otherwise than then, now or at the time of --at")
    private Optional<String> changedSince = Optional.empty();

    @Option(names = "--hosts", description = "what each host had, now or at the time of --at")
    private boolean hosts;

    @Option(names = "--group-by", paramLabel = "LABEL",
            description = "sorts and heads the components by their label of this name, such as team")
    private Optional<String> groupBy = Optional.empty();

    @Option(names = "--label", paramLabel = "NAME=VALUE",
            description = "only components with this label; may be given several times")
    private Map<String, String> labels = Map.of();

    WhereCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (changedSince.isPresent()) {
            return changed(RestraintCommands.past(changedSince.get()));
        }
        if (hosts) {
            return hosts(at.map(RestraintCommands::past).orElseGet(Instant::now));
        }
        if (at.isPresent()) {
            return then(at.get());
        }
        JsonNode whole = whole(Api.path("whereabouts") + "?", "rows");
        List<JsonNode> rows = whole.path("rows").valueStream().filter(row -> labels.entrySet().stream()
                .allMatch(label -> row.path("labels").path(label.getKey()).asString("").equals(label.getValue())))
                .toList();
        if (!labels.isEmpty()) {
            ((ObjectNode) whole).putArray("rows").addAll(rows);
        }
        return print(whole, () -> show(whole, rows));
    }

    /** The service answers so many components at a time: all of them, in the first answer. */
    private JsonNode whole(String path, String list) {
        String only = component.map(name -> "&component=" + Api.encode(name)).orElse("");
        JsonNode whole = api().get(path + only);
        for (String after = whole.path("next").asString(""); !after.isEmpty();) {
            JsonNode page = api().get(path + only + "&after=" + Api.encode(after));
            ((ArrayNode) whole.path(list)).addAll((ArrayNode) page.path(list));
            after = page.path("next").asString("");
        }
        ((ObjectNode) whole).remove("next");
        return whole;
    }

    private int then(String moment) {
        JsonNode rows = whole(Api.path("whereabouts", "at") + "?moment=" + RestraintCommands.past(moment), "places")
                .path("places");
        return print(rows, () -> {
            Table table = new Table("COMPONENT", "ENVIRONMENT", "WAS LIVE", "SINCE", "UNTIL", "DEPLOYMENT");
            rows.forEach(row -> table.row(context.ink().strong(row.path("component").asString()),
                    row.path("environment").asString(), row.path("version").asString(),
                    Times.exact(row.path("since")), row.has("until") ? Times.exact(row.path("until")) : "still",
                    row.path("deployment").asString("")));
            table.print(context.out(), context.ink());
        });
    }

    private int changed(Instant since) {
        JsonNode changes = api().get(Api.path("history", "changes") + "?since=" + since
                + at.map(time -> "&until=" + RestraintCommands.past(time)).orElse(""));
        List<JsonNode> rows = changes.path("changed").valueStream()
                .filter(row -> component.map(name -> row.path("component").asString().equals(name)).orElse(true))
                .toList();
        ((ObjectNode) changes).putArray("changed").addAll(rows);
        return print(changes, () -> {
            if (rows.isEmpty()) {
                context.out().println("nothing: the same is live as then");
                return;
            }
            Table table = new Table("COMPONENT", "ENVIRONMENT", "WAS LIVE", "NOW", "DEPLOYMENT");
            rows.forEach(row -> table.row(context.ink().strong(row.path("component").asString()),
                    row.path("environment").asString(), row.path("before").path("version").asString("nothing"),
                    row.path("after").path("version").asString("nothing")
                            + (row.path("sameVersion").asBoolean() ? ", deployed once more" : ""),
                    row.path("after").path("deployment").asString("")));
            table.print(context.out(), context.ink());
        });
    }

    private int hosts(Instant moment) {
        JsonNode rows = whole(Api.path("history", "hosts") + "?moment=" + moment, "hosts").path("hosts");
        return print(rows, () -> {
            Table table = new Table("HOST", "COMPONENT", "ENVIRONMENT", "VERSION", "SINCE", "DEPLOYMENT");
            rows.valueStream().filter(row -> component.map(row.path("component").asString()::equals).orElse(true))
                    .forEach(row -> table.row(context.ink().strong(row.path("host").asString()),
                            row.path("component").asString(), row.path("environment").asString(),
                            row.path("version").asString(), Times.exact(row.path("from")),
                            row.path("deployment").asString("")));
            table.print(context.out(), context.ink());
        });
    }

    private void show(JsonNode answer, List<JsonNode> rows) {
        if (rows.isEmpty()) {
            context.out()
                    .println(labels.isEmpty() ? "No component is registered yet; see paseo component register --help"
                            : "No component has " + (labels.size() == 1 ? "this label; see" : "these labels; see")
                                    + " paseo component labels --help");
            return;
        }
        Table table = new Table("COMPONENT", "ENVIRONMENT", "LIVE", "SINCE", "HOSTS", "WHAT WAITS");
        Instant now = Instant.parse(answer.path("now").asString());
        grouped(rows).forEach((value, members) -> {
            groupBy.ifPresent(
                    label -> table.group(context.ink().strong(value.isEmpty() ? "no " + label : label + " " + value)));
            members.forEach(row -> component(table, row, now));
        });
        table.print(context.out(), context.ink());
        closed(answer);
    }

    /** By the value of the label, in the order of the values, those without it last; all in one where none is named. */
    private Map<String, List<JsonNode>> grouped(List<JsonNode> rows) {
        Map<String, List<JsonNode>> groups = new TreeMap<>(
                Comparator.comparing(String::isEmpty).thenComparing(Comparator.naturalOrder()));
        rows.forEach(row -> groups
                .computeIfAbsent(groupBy.map(label -> row.path("labels").path(label).asString("")).orElse(""),
                        value -> new ArrayList<>())
                .add(row));
        return groups;
    }

    private void component(Table table, JsonNode row, Instant now) {
        String name = row.path("component").asString();
        if (row.path("cells").isEmpty()) {
            table.row(context.ink().strong(name), "", "no environment yet", "", "", "");
            name = "";
        }
        for (JsonNode cell : row.path("cells")) {
            table.row(context.ink().strong(name), cell.path("environment").asString(),
                    cell.path("version").asString("nothing"),
                    cell.has("since") ? Times.ago(cell.path("since"), now) : "", cell.path("hosts").asString(""),
                    waits(cell, now));
            name = "";
        }
        newest(table, row, now);
        for (JsonNode stay : row.path("stays")) {
            table.row(context.ink().strong(name), stay.path("environment").asString(), "", "", "",
                    stay.path("version").asString() + " " + context.ink().warn("stays") + ", "
                            + Times.ago(stay.path("since"), now) + ": " + stay.path("reason").asString());
        }
    }

    /** The newest run, where it did not come to a version. */
    private void newest(Table table, JsonNode row, Instant now) {
        JsonNode newest = row.path("newest");
        String status = newest.path("status").asString("");
        if (!newest.path("sealed").asBoolean() && UNSEALED.contains(status)) {
            table.row("", "", "", "", "", row.path("component").asString() + "#" + newest.path("run").asString("") + " "
                    + context.ink().state(status) + ", " + Times.ago(newest.path("at"), now));
        }
    }

    private void closed(JsonNode answer) {
        answer.path("environments").forEach(environment -> {
            if (environment.has("closed")) {
                context.out()
                        .println(environment.path("name").asString() + " is closed"
                                + (environment.path("closedByCalendar").asBoolean() ? " by its calendar" : "")
                                + (environment.has("closedUntil")
                                        ? " until " + Times.zoned(environment.path("closedUntil")) : "")
                                + ": " + environment.path("closed").asString());
            }
        });
    }

    private String waits(JsonNode cell, Instant now) {
        List<String> words = new ArrayList<>();
        if (cell.path("retired").asBoolean()) {
            words.add(context.ink().warn("retired, and still running"));
        }
        if (cell.has("kept")) {
            JsonNode kept = cell.path("kept");
            String why = kept.path("reason").asString();
            words.add((kept.path("testFailed").asBoolean() ? context.ink().bad(why) : why) + " (passage "
                    + kept.path("passage").asString("") + ")");
        }
        for (JsonNode coming : cell.path("coming")) {
            String what = coming.path("version").asString() + " "
                    + context.ink().state(coming.path("status").asString());
            String gate = coming.path("gate").asString("");
            words.add(what + (gate.isEmpty() ? "" : " for " + gate) + ", " + Times.ago(coming.path("requestedAt"), now)
                    + " (deployment " + coming.path("deployment").asString("") + ")"
                    + (coming.path("forYou").asBoolean() ? context.ink().need(" needs you") : ""));
        }
        if (cell.has("trouble")) {
            words.add(cell.path("trouble").path("version").asString() + " "
                    + context.ink().state(cell.path("trouble").path("status").asString())
                    + " (deployment " + cell.path("trouble").path("deployment").asString("") + ")");
        }
        behind(words, cell);
        marks(words, cell.path("marks"));
        return String.join("; ", words);
    }

    private static void behind(List<String> words, JsonNode cell) {
        int behind = cell.path("behind").asInt(0);
        if (behind > 0) {
            int commits = cell.path("commitsBehind").asInt(0);
            words.add(behind + (behind == 1 ? " version behind" : " versions behind")
                    + (commits == 0 ? "" : commits == 1 ? ", 1 commit" : ", " + commits + " commits"));
        }
    }

    private static void marks(List<String> words, JsonNode marks) {
        if (marks.has("held")) {
            words.add("held: " + marks.path("held").asString());
        }
        count(words, marks.path("differing").asInt(0), "does not have it", "do not have it");
        count(words, marks.path("drifted").asInt(0), "has other files", "have other files");
        count(words, marks.path("unhealthy").asInt(0), "is unhealthy", "are unhealthy");
        count(words, marks.path("away").asInt(0), "is in maintenance", "are in maintenance");
        if (marks.path("blocked").asBoolean()) {
            words.add("what is live is blocked");
        }
    }

    private static void count(List<String> words, int hosts, String one, String several) {
        if (hosts > 0) {
            words.add(hosts + (hosts == 1 ? " host " + one : " hosts " + several));
        }
    }
}

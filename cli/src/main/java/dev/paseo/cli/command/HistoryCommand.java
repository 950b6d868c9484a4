package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "history", description = {
        "What happened to what is live, the newest first: what went live and what did not, holds, closures, and hosts "
                + "in trouble.",
        "paseo where --changed-since TIME says what is live otherwise than then."},
        footer = {"", "Examples:", "  paseo history production --since 7d",
                "  paseo history daylight-api --in production", "  paseo history --host north-hut --since 24h",
                "  paseo history --by approver-1"})
final class HistoryCommand extends ServiceCommand {

    @Parameters(arity = "0..1", paramLabel = "ENVIRONMENT | COMPONENT", hideParamSyntax = true,
            description = "only what happened there, or to it")
    private Optional<String> subject = Optional.empty();

    @Option(names = "--in", paramLabel = "ENVIRONMENT", description = "of a component: only there")
    private Optional<String> environment = Optional.empty();

    @Option(names = "--host", description = "only what concerned this host")
    private Optional<String> host = Optional.empty();

    @Option(names = "--by", paramLabel = "ACCOUNT", description = "only what this account asked for, decided or did")
    private Optional<String> by = Optional.empty();

    @Option(names = "--since", paramLabel = "TIME",
            description = "ISO 8601, such as 2026-05-03T14:05:00Z, or how long ago, such as 7d")
    private Optional<String> since = Optional.empty();

    @Option(names = "--until", paramLabel = "TIME", description = "likewise; only before it")
    private Optional<String> until = Optional.empty();

    @Option(names = "--after", paramLabel = "CURSOR", description = "goes on after this one, as --output json says "
            + "next")
    private Optional<String> after = Optional.empty();

    @Option(names = "--limit", defaultValue = "50", description = "1 to 200; default: ${DEFAULT-VALUE}")
    private int limit = 50;

    HistoryCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Map<String, Optional<String>> asked = new LinkedHashMap<>();
        boolean place = environment.isEmpty() && subject.map(this::isEnvironment).orElse(false);
        asked.put("environment", place ? subject : environment);
        asked.put("component", place ? Optional.empty() : subject);
        asked.put("host", host);
        asked.put("by", by);
        asked.put("since", since.map(time -> RestraintCommands.past(time).toString()));
        asked.put("until", until.map(time -> RestraintCommands.past(time).toString()));
        asked.put("after", after);
        JsonNode answer = api().get(Api.path("history") + "?limit=" + limit + asked.entrySet().stream()
                .filter(each -> each.getValue().isPresent())
                .map(each -> "&" + each.getKey() + "=" + Api.encode(each.getValue().get()))
                .collect(Collectors.joining()));
        return print(answer, () -> {
            Table table = new Table("WHEN", "ENVIRONMENT", "COMPONENT", "WHAT", "DEPLOYMENT", "BY", "");
            answer.path("happened").forEach(each -> table.row(Times.exact(each.path("at")),
                    each.path("environment").asString(), context.ink().strong(each.path("component").asString("all")),
                    what(each), each.path("deployment").asString(""), each.path("by").asString(""),
                    (each.path("emergency").asBoolean() ? context.ink().bad("emergency ") : "")
                            + each.path("reason").asString("")));
            if (answer.path("happened").isEmpty()) {
                context.out().println("nothing happened");
            } else {
                table.print(context.out(), context.ink());
            }
            if (answer.has("next")) {
                context.out().println(context.ink().quiet("more: --after " + answer.path("next").asString()));
            }
        });
    }

    /** A name of an environment goes before that of a component. */
    private boolean isEnvironment(String name) {
        return api().get(Api.path("environments")).valueStream()
                .anyMatch(each -> each.path("name").asString().equals(name));
    }

    private String what(JsonNode happened) {
        String version = happened.path("version").asString("");
        return switch (happened.path("what").asString()) {
            case "went-live" -> version + " " + context.ink().good("live");
            case "live-again" -> version + " " + context.ink().warn("live again");
            case "ended" -> version + " " + context.ink().state(happened.path("status").asString());
            case "held" -> context.ink().warn("held");
            case "let-go" -> "hold lifted";
            case "closed" -> context.ink().warn("closed");
            case "opened" -> "opened";
            case "unhealthy" -> happened.path("host").asString() + " " + context.ink().bad("unhealthy");
            default -> happened.path("host").asString() + " " + context.ink().bad("drifted");
        };
    }
}

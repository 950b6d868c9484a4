package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** {@code paseo log}: what a stage, or a deployment's work on a host, has said. */
@Command(name = "log",
        description = {"Prints the whole log of a stage of a run, or of a deployment's work on a host.",
                "Without a stage or a host, says what has a log."},
        footer = {"", "Examples:", "  paseo log daylight-api#41",
                "  paseo log daylight-api#41 unit-tests --variant jdk=25", "  paseo log deployment 12 north-hut", "",
                "To follow what is under way: paseo watch daylight-api#41"})
final class LogCommand extends ServiceCommand {

    @Parameters(arity = "1..3", paramLabel = "COMPONENT#RUN [STAGE] | deployment NUMBER [HOST]", hideParamSyntax = true)
    private List<String> words = List.of();

    @Option(names = "--variant", description = "of a stage with variants; default: the first")
    private Optional<String> variant = Optional.empty();

    @Option(names = "--attempt", paramLabel = "NUMBER",
            description = "of a stage that was tried again; default: the newest")
    private Optional<Integer> attempt = Optional.empty();

    LogCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        boolean deployment = words.getFirst().equals("deployment");
        int naming = deployment ? 2 : 1;
        if (words.size() < naming || words.size() > naming + 1) {
            throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", words)
                    + "” should be COMPONENT#RUN, deployment NUMBER, or one of them with a stage or a host");
        }
        Optional<String> of = words.size() > naming ? Optional.of(words.getLast()) : Optional.empty();
        return switch (Subject.of(words.subList(0, naming))) {
            case Subject.Run(String component, String number) -> stage(component, number, of);
            case Subject.Deployment(String id) -> host(id, of);
            default -> throw new Failure(Failure.Kind.USAGE,
                    "“" + String.join(" ", words) + "” has no log; a run's stages and a deployment's hosts have");
        };
    }

    private int stage(String component, String number, Optional<String> stage) {
        Api api = api();
        if (stage.isEmpty()) {
            JsonNode view = api.get(Api.path("runs", component, number));
            return print(view.path("stages"), () -> {
                Table table = new Table("STAGE", "VARIANT", "ATTEMPT", "STATE", "BEGAN", "TOOK");
                view.path("stages")
                        .forEach(each -> table.row(each.path("name").asString(), each.path("variant").asString(""),
                                each.path("attempt").asString(""),
                                context.ink().state(each.path("status").asString()),
                                Times.exact(each.path("startedAt")), ListCommands.took(each)));
                table.print(context.out(), context.ink());
            });
        }
        List<String> query = new ArrayList<>();
        variant.ifPresent(value -> query.add("variant=" + Api.encode(value)));
        attempt.ifPresent(value -> query.add("attempt=" + value));
        context.out().print(api.text(Api.path("runs", component, number, "stages", stage.get(), "log.txt")
                + (query.isEmpty() ? "" : "?" + String.join("&", query))));
        return 0;
    }

    private int host(String id, Optional<String> host) {
        Api api = api();
        JsonNode tasks = api.get(Api.path("deployments", id)).path("tasks");
        if (host.isEmpty()) {
            return print(tasks, () -> {
                Table table = new Table("HOST", "WORK", "STATE", "BEGAN");
                tasks.forEach(task -> table.row(task.path("host").asString(), Words.lower(task.path("kind").asString()),
                        task.path("status").asString(), Times.exact(task.path("takenAt"))));
                table.print(context.out(), context.ink());
            });
        }
        List<JsonNode> of = tasks.valueStream().filter(task -> task.path("host").asString().equals(host.get()))
                .toList();
        if (of.isEmpty()) {
            throw new Failure(Failure.Kind.REFUSED,
                    "Deployment " + id + " has done nothing on " + host.get() + "; it worked on "
                            + String.join(", ",
                                    tasks.valueStream().map(task -> task.path("host").asString()).distinct().toList()));
        }
        for (JsonNode task : of) {
            context.out().println(
                    context.ink().strong("── " + Words.lower(task.path("kind").asString()) + " on " + host.get()));
            context.out()
                    .print(api.text(Api.path("deployments", id, "tasks", task.path("work").asString(""), "log.txt")));
        }
        return 0;
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "compare",
        description = "What differs between two runs, two versions of a component, or two environments: commits, "
                + "artifacts, evidence, variables, recipe.",
        footer = {"", "Examples:", "  paseo compare daylight-api#1 daylight-api#3",
                "  paseo compare daylight-api 1.4.1 1.4.3", "  paseo compare staging production"})
final class CompareCommand extends ServiceCommand {

    @Parameters(arity = "2..3", paramLabel = "A B", hideParamSyntax = true,
            description = "two runs, a component and two of its versions, or two environments")
    private List<String> compared = List.of();

    @Option(names = "--component", description = "of two environments, only this component")
    private Optional<String> component = Optional.empty();

    CompareCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (compared.size() == 3) {
            JsonNode view = api().get(Api.path("comparison", "versions", compared.get(0)) + "?from="
                    + Api.encode(compared.get(1)) + "&to=" + Api.encode(compared.get(2)));
            return print(view, () -> {
                context.out().println(
                        context.ink().strong(compared.get(0)) + " " + compared.get(1) + ", then " + compared.get(2));
                ChangeLines lines = new ChangeLines(context);
                lines.print(view);
                lines.end();
            });
        }
        if (!compared.get(0).contains("#") && !compared.get(1).contains("#")) {
            JsonNode places = api().get(Api.path("comparison", "environments") + "?from=" + Api.encode(compared.get(0))
                    + "&to=" + Api.encode(compared.get(1))
                    + component.map(name -> "&component=" + Api.encode(name)).orElse(""));
            return print(places, () -> places.forEach(this::place));
        }
        if (!(Subject.of(compared.subList(0, 1)) instanceof Subject.Run(String of, String before))
                || !(Subject.of(compared.subList(1, 2)) instanceof Subject.Run(String other, String after))
                || !of.equals(other)) {
            throw new Failure(Failure.Kind.USAGE,
                    "Two runs of one component are compared, such as daylight-api#1 daylight-api#3");
        }
        JsonNode view = api().get(Api.path("runs", of, after, "comparison") + "?with=" + before);
        return print(view, () -> show(view));
    }

    private void place(JsonNode place) {
        context.out()
                .println(context.ink().strong(place.path("component").asString()) + "  from " + compared.get(0) + ", "
                        + place.path("from").asString("nothing") + ", to "
                        + compared.get(1) + ", " + place.path("to").asString("nothing"));
        ChangeLines lines = new ChangeLines(context);
        if (place.has("versions")) {
            lines.print(place.path("versions"));
        }
        lines.variables(place.path("variables"));
        place.path("secrets").forEach(secret -> {
            if (secret.path("from").asBoolean() != secret.path("to").asBoolean()) {
                lines.line("secret " + secret.path("name").asString() + "  has no value in "
                        + compared.get(secret.path("from").asBoolean() ? 1 : 0));
            }
        });
        lines.end();
    }

    private void show(JsonNode view) {
        context.out()
                .println(context.ink().strong(compared.get(0)) + " "
                        + context.ink().state(view.path("before").path("status").asString()) + ", then "
                        + context.ink().strong(compared.get(1)) + " "
                        + context.ink().state(view.path("after").path("status").asString()));
        view.path("commits")
                .forEach(commit -> context.out()
                        .println("  " + short8(commit.path("id")) + "  " + commit.path("summary").asString()
                                + context.ink().quiet("  " + commit.path("author").asString())));
        context.out().println();
        Table stages = new Table("STAGE", "BEFORE", "AFTER", "SECONDS");
        view.path("stages")
                .forEach(stage -> stages.row(stage.path("stage").asString(),
                        context.ink().state(stage.path("before").asString("none")),
                        context.ink().state(stage.path("after").asString("none")),
                        stage.path("secondsBefore").asString("–") + " → " + stage.path("secondsAfter").asString("–")));
        stages.print(context.out(), context.ink());
        changes(view, "figures", "Figures");
        changes(view, "tests", "Tests");
        changes(view, "takes", "Taken from other components");
        changes(view, "pieces", "Pieces of the pipeline file");
        changes(view, "answers", "Answers");
        changes(view, "artifacts", "Artifacts");
    }

    private void changes(JsonNode view, String key, String heading) {
        if (view.path(key).isEmpty()) {
            return;
        }
        context.out().println();
        context.out().println(context.ink().strong(heading));
        Table table = new Table("", "BEFORE", "AFTER");
        view.path(key).forEach(change -> table.row(change.path("name").asString(),
                cut(change.path("before").asString("–")), cut(change.path("after").asString("–"))));
        table.print(context.out(), context.ink());
    }

    private static String cut(String text) {
        return text.length() == 64 ? text.substring(0, 12) : text;
    }
}

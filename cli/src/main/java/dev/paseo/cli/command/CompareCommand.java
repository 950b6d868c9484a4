package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "compare", description = "What changed from one run of a component to another: commits, stages, artifacts, tests, figures.",
        footer = {"", "Example:", "  paseo compare tide-api#1 tide-api#3"})
final class CompareCommand extends ServiceCommand {

    @Parameters(arity = "2", paramLabel = "COMPONENT#RUN COMPONENT#RUN", hideParamSyntax = true)
    private List<String> runs = List.of();

    CompareCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (!(Subject.of(runs.subList(0, 1)) instanceof Subject.Run(String component, String before))
                || !(Subject.of(runs.subList(1, 2)) instanceof Subject.Run(String other, String after)) || !component.equals(other)) {
            throw new Failure(Failure.Kind.USAGE, "two runs of one component are compared, such as tide-api#1 tide-api#3");
        }
        JsonNode view = api().get(Api.path("runs", component, after, "comparison") + "?with=" + before);
        return print(view, () -> show(view));
    }

    private void show(JsonNode view) {
        context.out().println(context.ink().strong(runs.get(0)) + " " + context.ink().state(view.path("before").path("status").asString()) + ", then "
                + context.ink().strong(runs.get(1)) + " " + context.ink().state(view.path("after").path("status").asString()));
        view.path("commits").forEach(commit -> context.out().println("  " + short8(commit.path("id")) + "  " + commit.path("summary").asString()
                + context.ink().quiet("  " + commit.path("author").asString())));
        context.out().println();
        Table stages = new Table("STAGE", "BEFORE", "AFTER", "SECONDS");
        view.path("stages").forEach(stage -> stages.row(stage.path("stage").asString(), context.ink().state(stage.path("before").asString("none")),
                context.ink().state(stage.path("after").asString("none")), stage.path("secondsBefore").asString("–") + " → " + stage.path("secondsAfter").asString("–")));
        stages.print(context.out(), context.ink());
        changes(view, "figures", "Figures");
        changes(view, "tests", "Tests");
        changes(view, "takes", "Taken from other components");
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
        view.path(key).forEach(change -> table.row(change.path("name").asString(), cut(change.path("before").asString("–")), cut(change.path("after").asString("–"))));
        table.print(context.out(), context.ink());
    }

    private static String cut(String text) {
        return text.length() == 64 ? text.substring(0, 12) : text;
    }
}

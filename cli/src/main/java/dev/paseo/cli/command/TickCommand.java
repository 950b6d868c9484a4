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
import tools.jackson.databind.node.ObjectNode;

@Command(name = "tick",
        description = "Ticks an item of the checklist of a passage or a waiting deployment; without an item, shows "
                + "the list.",
        footer = {"", "Examples:", "  paseo tick passage 3 \"Old links still work\"",
                "  paseo tick passage 3 \"Old links still work\" --failed --note \"/times answers 404\""})
final class TickCommand extends ServiceCommand {

    @Parameters(arity = "2..3", paramLabel = "passage NUMBER [ITEM]", hideParamSyntax = true)
    private List<String> words = List.of();

    @Option(names = "--failed",
            description = "the item failed: a deployment is rejected by it, a version stays where it is")
    private boolean failed;

    @Option(names = "--clear", description = "takes back what was said about the item")
    private boolean cleared;

    @Option(names = "--note", description = "what was seen; needed with --failed")
    private Optional<String> note = Optional.empty();

    TickCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        String path = Subject.pathOfGate(words.subList(0, 2));
        Api api = api();
        if (words.size() == 3) {
            if (failed && cleared) {
                throw new Failure(Failure.Kind.USAGE, "--failed and --clear exclude each other");
            }
            ObjectNode request = api.object().put("item", words.get(2)).put("outcome",
                    failed ? "failed" : cleared ? "cleared" : "done");
            note.ifPresent(text -> request.put("note", text));
            api.post(path + "/ticks", request);
        }
        JsonNode view = api.get(path);
        return print(view, () -> show(view));
    }

    private void show(JsonNode view) {
        if (view.path("checklists").isEmpty()) {
            context.out().println("It has no checklist.");
            return;
        }
        Table table = new Table("STATE", "ITEM", "BY", "");
        view.path("checklists")
                .forEach(list -> list.path("items")
                        .forEach(item -> table.row(context.ink().state(item.path("outcome").asString("open")),
                                item.path("item").asString(),
                                item.path("by").asString(""), item.path("note").asString(""))));
        table.print(context.out(), context.ink());
        view.path("gate").forEach(each -> context.out().println(context.ink().state(each.path("state").asString())
                + "  " + each.path("name").asString() + ": " + each.path("sentence").asString()));
        if (view.has("endedAt")) {
            context.out().println("The passage has ended: the walk goes on.");
        }
    }
}

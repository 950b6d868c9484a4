package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(name = "notices", description = "What you were told, the newest first; how you are told is chosen in the "
        + "console, on Waiting.",
        footer = {"", "Examples:", "  paseo notices", "  paseo notices --all", "  paseo notices --read"})
final class NoticesCommand extends ServiceCommand {

    @Option(names = "--all", description = "those that were read too, at most 100")
    private boolean all;

    @Option(names = "--read", description = "marks all of them as read")
    private boolean read;

    NoticesCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        JsonNode told = api().get(Api.path("notices"));
        if (read && !told.path("notices").isEmpty()) {
            api().post(Api.path("notices", "read"),
                    api().object().put("upTo", told.path("notices").path(0).path("id").asLong()));
        }
        return print(told, () -> {
            Table table = new Table("WHEN", "WHAT", "WHERE");
            told.path("notices").valueStream().filter(each -> all || !each.path("read").asBoolean())
                    .forEach(each -> table.row(Times.exact(each.path("at")), each.path("title").asString(),
                            each.path("path").asString()));
            if (told.path("unread").asInt() == 0 && !all) {
                context.out().println("Nothing that you have not read.");
            } else {
                table.print(context.out(), context.ink());
            }
        });
    }
}

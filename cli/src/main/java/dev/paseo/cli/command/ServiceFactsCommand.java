package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.core.text.Size;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(name = "service",
        description = "The service as a whole: its version, its database, what is free, and whether mails wait.",
        footer = {"", "Examples:", "  paseo service", "  paseo service --mail-test"})
final class ServiceFactsCommand extends ServiceCommand {

    @Option(names = "--mail-test", description = "sends a mail to your own address, or says why it does not go out")
    private boolean mail;

    ServiceFactsCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (mail) {
            JsonNode sent = api().post(Api.path("mail-test"), api().object());
            return print(sent, () -> context.out().println("Sent to " + sent.path("to").asString() + "."));
        }
        JsonNode facts = api().get(Api.path("service"));
        return print(facts, () -> {
            context.out().println("Version   " + facts.path("version").asString("not a release") + ", started "
                    + Times.exact(facts.path("started")));
            context.out().println("Database  " + facts.path("database").asString() + ", "
                    + Size.words(facts.path("databaseBytes").asLong()));
            context.out().println("Disk      " + Size.words(facts.path("freeBytes").asLong()) + " free of "
                    + Size.words(facts.path("wholeBytes").asLong()));
            context.out().println("Mails     " + (facts.has("mailServer")
                    ? facts.path("mailServer").asString() + ", " + facts.path("mailsDue").asLong() + " wait"
                    : "no server is set: none go out"));
            facts.path("replicas").forEach(each -> context.out().println("Replica   " + each.path("name").asString()
                    + ", started " + Times.exact(each.path("started")) + ", last at work "
                    + Times.exact(each.path("seen"))));
            context.out().println("Kept      at most " + Size.words(facts.path("quotaBytes").asLong())
                    + " of each component; nothing is deleted by itself");
            facts.path("kept").forEach(each -> context.out().println("          " + each.path("component").asString()
                    + " " + Size.words(each.path("bytes").asLong())));
        });
    }
}

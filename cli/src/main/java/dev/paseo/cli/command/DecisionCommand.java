package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A yes or a no; the two commands differ in nothing else. */
abstract class DecisionCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "deployment NUMBER", hideParamSyntax = true,
            description = "such as: deployment 7, or passage 3")
    List<String> subject = List.of();

    @Option(names = "--comment", description = "what you looked at, and why yes or no; kept in the audit trail")
    private Optional<String> comment = Optional.empty();

    private final boolean yes;

    DecisionCommand(Context context, boolean yes) {
        super(context);
        this.yes = yes;
    }

    @Override
    public Integer call() {
        String path = Subject.pathOfGate(subject);
        Api api = api();
        JsonNode seen = api.get(path);
        ObjectNode request = api.object().put("yes", yes).put("subject", seen.path("subject").asString());
        comment.ifPresent(words -> request.put("comment", words));
        JsonNode after = api.post(path + "/decision", request);
        return print(after, () -> said(yes ? "Approved" : "Rejected", after));
    }

    void said(String what, JsonNode after) {
        context.out()
                .println(what + " " + after.path("component").asString() + " " + after.path("version").asString()
                        + " for " + after.path("environment").asString() + "; "
                        + (subject.size() == 1 ? "deployment " : "") + String.join(" ", subject) + " is "
                        + context.ink().state(after.path("status").asString()) + ".");
    }

    @Command(name = "approve", description = "Approves exactly what a waiting deployment would deploy now.",
            footer = {"", "Examples:", "  paseo approve deployment 7 --comment \"Compared both boards; times agree.\"",
                    "  paseo approve deployment 7 --take-back"})
    static final class Approve extends DecisionCommand {
        @Option(names = "--take-back", description = "takes back your own approval, as long as it waits")
        private boolean back;

        Approve(Context context) {
            super(context, true);
        }

        @Override
        public Integer call() {
            if (!back) {
                return super.call();
            }
            JsonNode after = api().delete(Subject.pathOfGate(subject) + "/decision");
            return print(after, () -> said("Took back your approval of", after));
        }
    }

    @Command(name = "reject", description = "Rejects a waiting deployment; one rejection ends it.",
            footer = {"", "Example:", "  paseo reject deployment 7 --comment \"Times differ at the valley-house.\""})
    static final class Reject extends DecisionCommand {
        Reject(Context context) {
            super(context, false);
        }
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

/** {@code paseo audit ...}. */
final class AuditCommands {

    private AuditCommands() {}

    @Command(name = "verify",
            description = "Verifies the service's audit trail against its signed tree heads; exits 1 where "
                    + "something is wrong.",
            footer = {"", "Example:", "  paseo audit verify"})
    static final class Verify extends ServiceCommand {
        Verify(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode report = api().get(Api.path("audit", "verification"));
            boolean good = report.path("findings").isEmpty();
            print(report, () -> {
                context.out().println((good ? context.ink().good("good: ") : context.ink().bad("wrong: "))
                        + report.path("entries").asString("")
                        + " entries, " + report.path("covered").asString("") + " covered by a signed tree head, "
                        + report.path("notCovered").asString("") + " not yet covered");
                report.path("findings").forEach(finding -> context.out().println("  " + finding.asString()));
                report.path("restored").forEach(gap -> context.out().println("  " + gap.asString()));
            });
            return good ? 0 : 1;
        }
    }

    @Command(name = "acknowledge-restore", description = {
            "Says that the database was restored from an older copy, with the reason. The entries that were lost by "
                    + "it stand in the",
            "audit trail and in every verification from then on, and are no longer a fault."},
            footer = {"", "Example:",
                    "  paseo audit acknowledge-restore --reason 'the disk of the database failed; copy of last night'"})
    static final class AcknowledgeRestore extends ServiceCommand {
        @Option(names = "--reason", required = true, description = "why, and from when the copy was")
        private String reason = "";

        AcknowledgeRestore(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode gap = api.post(Api.path("audit", "restore"), api.object().put("reason", reason));
            return print(gap,
                    () -> context.out()
                            .println("Acknowledged: entries " + gap.path("from").asString() + " to "
                                    + (gap.path("to").asLong() - 1) + ", up to "
                                    + Times.exact(gap.path("lastAt")) + ", were lost by the restore."));
        }
    }

    @Command(name = "list", description = "The newest entries: who, what, where, when, because of what.",
            footer = {"", "Example:", "  paseo audit list --limit 20"})
    static final class List extends ServiceCommand {
        @Option(names = "--limit", defaultValue = "30", description = "1 to 500; default: ${DEFAULT-VALUE}")
        private int limit = 30;

        @Option(names = "--subject", description = "only entries about this, such as \"daylight-api 1.4.1\"")
        private Optional<String> subject = Optional.empty();

        List(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            String query = "?limit=" + limit + subject.map(name -> "&subject="
                    + java.net.URLEncoder.encode(name, java.nio.charset.StandardCharsets.UTF_8)).orElse("");
            JsonNode answer = api().get(Api.path("audit") + query);
            return print(answer, () -> {
                Table table = new Table("POSITION", "WHEN", "WHO", "WHAT", "ON", "WHERE", "BECAUSE OF");
                answer.path("entries").forEach(row -> {
                    JsonNode entry = row.path("entry");
                    table.row(row.path("position").asString("-"), Times.exact(entry.path("at")),
                            entry.path("who").asString(),
                            entry.path("what").asString(), entry.path("subject").asString(),
                            entry.path("where").asString(""),
                            entry.path("because").asString(""));
                });
                table.print(context.out(), context.ink());
            });
        }
    }
}

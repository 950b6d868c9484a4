package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Exported;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo audit ...}. */
final class AuditCommands {

    private AuditCommands() {}

    @Command(name = "verify",
            description = "Verifies the service's audit trail against its signed tree heads, or, without a service, a "
                    + "file of paseo audit export; exits 1 where something is wrong.",
            footer = {"", "Examples:", "  paseo audit verify", "  paseo audit verify trail.jsonl --key key.txt",
                    "  paseo audit verify --head head.json"})
    static final class Verify extends ServiceCommand {
        @Parameters(arity = "0..1", paramLabel = "FILE", description = "written by paseo audit export")
        private Optional<Path> file = Optional.empty();

        @Option(names = "--head", paramLabel = "FILE",
                description = "heads that were kept elsewhere, one a line, as paseo audit head prints one")
        private Optional<Path> head = Optional.empty();

        @Option(names = "--key", paramLabel = "FILE",
                description = "the service's keys, as paseo audit key prints them, or one of them: it and those that "
                        + "took its place are believed; default: those that come with it are")
        private Optional<Path> key = Optional.empty();

        Verify(Context context) {
            super(context);
        }

        private int exported(Path from) {
            ExportCheck.Checked checked = TrailCommands.checked(from, key.map(TrailCommands::text),
                    head.map(TrailCommands::heads).orElse(java.util.List.of()));
            context.out().println((checked.passed() ? context.ink().good("good: ") : context.ink().bad("wrong: "))
                    + checked.entries() + " entries from position " + checked.from()
                    + (checked.covered() > 0 ? ", covered up to " + (checked.covered() - 1) + " by signed heads" : "")
                    + (checked.keyPrint().isEmpty() ? "" : ", by the key " + checked.keyPrint()
                            + (key.isPresent() ? "" : ", which stands in the file: hold it against the service's")));
            checked.findings().forEach(finding -> context.out().println("  " + finding));
            return checked.passed() ? 0 : 1;
        }

        private int continued(Path kept) {
            java.util.List<Exported.Head> heads = TrailCommands.heads(kept).stream().distinct().toList();
            Api api = api();
            Optional<String> broken = heads.stream().flatMap(each -> TrailCommands.broken(api, each, key).stream())
                    .findFirst();
            context.out().println(broken.map(why -> context.ink().bad("wrong: ") + why)
                    .orElse(context.ink().good("good: ") + "the trail continues "
                            + (heads.size() == 1 ? "the head" : "each of the " + heads.size() + " heads, the last one")
                            + " of " + heads.getLast().head().size() + " entries that was kept"));
            return broken.isPresent() ? 1 : 0;
        }

        @Override
        public Integer call() {
            if (file.isPresent()) {
                return exported(file.get());
            }
            if (head.isPresent()) {
                return continued(head.get());
            }
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
            "Says that the database was restored from an older copy, with the reason.",
            "The entries that were lost by it stand in the audit trail and in every verification from then on, and "
                    + "are no longer a fault."},
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

    @Command(name = "list", description = "The newest entries: what happened, when and because of what.",
            footer = {"", "Example:", "  paseo audit list --limit 20"})
    static final class List extends ServiceCommand {
        @Option(names = "--limit", defaultValue = "30", description = "1 to 500; default: ${DEFAULT-VALUE}")
        private int limit = 30;

        @Option(names = "--subject", description = "only entries about this, such as \"daylight-api 1.4.1\"")
        private Optional<String> subject = Optional.empty();

        @Option(names = "--by", paramLabel = "ACCOUNT", description = "only what this account did; paseo: by itself")
        private Optional<String> by = Optional.empty();

        @Option(names = "--what", paramLabel = "ACTION", description = "only this action, such as held")
        private Optional<String> what = Optional.empty();

        @Option(names = "--component", description = "only about this component, its runs and versions")
        private Optional<String> component = Optional.empty();

        @Option(names = "--version", description = "only about this version of the component")
        private Optional<String> version = Optional.empty();

        @Option(names = "--in", paramLabel = "ENVIRONMENT")
        private Optional<String> environment = Optional.empty();

        @Option(names = "--deployment", paramLabel = "NUMBER")
        private Optional<String> deployment = Optional.empty();

        @Option(names = "--since", paramLabel = "TIME",
                description = "ISO 8601, such as 2026-05-03T14:05:00Z, or how long ago, such as 7d")
        private Optional<String> since = Optional.empty();

        @Option(names = "--until", paramLabel = "TIME", description = "likewise; only before it")
        private Optional<String> until = Optional.empty();

        @Option(names = "--text", description = "only with this anywhere in them, whatever its case")
        private Optional<String> text = Optional.empty();

        @Option(names = "--without-sign-ins", description = "without those of signing in and failing to")
        private boolean withoutSignIns;

        @Option(names = "--before", paramLabel = "ID", description = "goes on after this one, as --json says next")
        private Optional<String> before = Optional.empty();

        List(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Map<String, Optional<String>> asked = new LinkedHashMap<>();
            asked.put("subject", subject);
            asked.put("by", by);
            asked.put("what", what);
            asked.put("component", component);
            asked.put("version", version);
            asked.put("environment", environment);
            asked.put("deployment", deployment);
            asked.put("since", since.map(time -> RestraintCommands.past(time).toString()));
            asked.put("until", until.map(time -> RestraintCommands.past(time).toString()));
            asked.put("text", text);
            asked.put("before", before);
            asked.put("signIns", Optional.of(Boolean.toString(!withoutSignIns)));
            JsonNode answer = asked(asked, limit);
            // A text is looked for among so many entries at once: on until there are enough, or no more.
            while (answer.has("lookedBack")) {
                asked.put("before", Optional.of(answer.path("next").asString("")));
                ArrayNode found = (ArrayNode) answer.path("entries");
                JsonNode more = asked(asked, limit - found.size());
                found.addAll((ArrayNode) more.path("entries"));
                ((ObjectNode) more).set("entries", found);
                answer = more;
            }
            return printed(answer);
        }

        private JsonNode asked(Map<String, Optional<String>> asked, int most) {
            asked.put("limit", Optional.of(Integer.toString(most)));
            return api().get(Api.path("audit") + Api.query(asked));
        }

        /** What is to be seen at once: what went past a rule, and who stood in for whom. */
        private String marks(JsonNode entry) {
            JsonNode details = entry.path("details");
            return (details.path("emergency").asString("").isEmpty() ? "" : context.ink().bad(" (an emergency)"))
                    + (details.path("past the hold").asString("").isEmpty() ? ""
                            : context.ink().bad(" (past the hold)"))
                    + (details.path("in place of").asString("").isEmpty() ? ""
                            : " (in place of " + details.path("in place of").asString() + ")");
        }

        private int printed(JsonNode answer) {
            return print(answer, () -> {
                Table table = new Table("POSITION", "WHEN", "WHAT HAPPENED", "BECAUSE OF");
                answer.path("entries").forEach(row -> {
                    JsonNode entry = row.path("entry");
                    table.row(row.path("position").asString("-"), Times.exact(entry.path("at")),
                            row.path("sentence").asString() + marks(entry), entry.path("because").asString(""));
                });
                table.print(context.out(), context.ink());
            });
        }
    }
}

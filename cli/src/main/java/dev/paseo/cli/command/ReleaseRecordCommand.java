package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "release-record", description = {
        "One document with all of a deployment, of a set's newest promotion, or of an environment over a period: what "
                + "was deployed, what differed, on what evidence, who decided, what was done on which host, and where "
                + "the audit trail has it.",
        "Into a file it is written as PDF, as a page, or as JSON, by how the file's name ends."},
        footer = {"", "Examples:", "  paseo release-record deployment 7 --into release.pdf",
                "  paseo release-record set summer-board --in production --into summer.html",
                "  paseo release-record production --since 30d --into november.pdf"})
final class ReleaseRecordCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "deployment NUMBER | set NAME | ENVIRONMENT", hideParamSyntax = true)
    private List<String> of = List.of();

    @Option(names = "--since", paramLabel = "TIME", defaultValue = "7d",
            description = "of an environment: ISO 8601, or how long ago; default: ${DEFAULT-VALUE}")
    private String since = "7d";

    @Option(names = "--until", paramLabel = "TIME", description = "likewise; default: now")
    private Optional<String> until = Optional.empty();

    @Option(names = "--in", paramLabel = "ENVIRONMENT", description = "of a set: its promotion into this one")
    private Optional<String> in = Optional.empty();

    @Option(names = "--into", paramLabel = "FILE", description = "FILE.pdf, FILE.html or FILE.json")
    private Optional<Path> into = Optional.empty();

    ReleaseRecordCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        String query = query();
        if (into.isPresent()) {
            String path = form(into.get()).map(form -> Api.path("release-records", form))
                    .orElseGet(() -> Api.path("release-records"));
            WholeFile.write(into.get(), out -> api().copy(path + query, out), part -> {});
            context.out().println(into.get() + " has the release record.");
            return 0;
        }
        JsonNode record = api().get(Api.path("release-records") + query);
        return print(record, () -> lines(record));
    }

    private static Optional<String> form(Path file) {
        String name = file.toString();
        if (name.endsWith(".pdf")) {
            return Optional.of("pdf");
        }
        if (name.endsWith(".html")) {
            return Optional.of("page");
        }
        if (name.endsWith(".json")) {
            return Optional.empty();
        }
        throw new Failure(Failure.Kind.USAGE, file + " should end in .pdf, .html or .json: its form follows from that");
    }

    private String query() {
        if (of.size() == 2 && of.getFirst().equals("deployment") && of.get(1).matches("[0-9]{1,18}")) {
            return "?deployment=" + of.get(1);
        }
        if (of.size() == 2 && of.getFirst().equals("set")) {
            return "?promotion=" + promotion(of.get(1));
        }
        if (of.size() == 1) {
            return "?environment=" + Api.encode(of.getFirst()) + "&since=" + RestraintCommands.past(since)
                    + until.map(time -> "&until=" + RestraintCommands.past(time)).orElse("");
        }
        throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", of)
                + "” should be deployment NUMBER, set NAME, or an ENVIRONMENT");
    }

    private long promotion(String set) {
        return api().get(Api.path("sets", set)).path("promotions").valueStream()
                .filter(each -> in.isEmpty() || in.get().equals(each.path("environment").asString())).findFirst()
                .orElseThrow(() -> new Failure(Failure.Kind.REFUSED, set + " was not promoted"
                        + in.map(environment -> " into " + environment).orElse("") + " yet"))
                .path("id").asLong();
    }

    private void lines(JsonNode record) {
        context.out().println(context.ink().strong("Release record: " + record.path("about").asString()));
        record.path("releases").forEach(this::release);
        if (record.path("releases").isEmpty()) {
            context.out().println("Nothing went live, and nothing ended.");
        }
        context.out().println();
        JsonNode head = record.path("head");
        context.out().println(record.path("covered").asBoolean()
                ? "The signed head of " + head.path("size").asLong() + " entries covers all of it: "
                        + head.path("root").asString()
                : "Not all of it is covered by a signed head yet: ask again in a second.");
        context.out().println("The whole is in a file: --into FILE.pdf");
    }

    private void release(JsonNode release) {
        JsonNode deployment = release.path("deployment");
        context.out().println();
        context.out().println(context.ink().strong(deployment.path("component").asString() + " "
                + deployment.path("version").asString() + " into " + deployment.path("environment").asString()) + ", "
                + deployment.path("status").asString() + ", deployment " + deployment.path("id").asLong() + ", "
                + Times.exact(deployment.path("requestedAt")));
        release.path("decisions").forEach(each -> context.out().println("  " + Words.ofDecision(each)));
        context.out().println("  " + release.path("difference").path("commitCount").asInt() + " commits more than "
                + release.path("difference").path("live").asString("nothing"));
        if (!release.path("hosts").isEmpty()) {
            context.out().println("  hosts: " + release.path("hosts").valueStream()
                    .map(host -> host.path("host").asString() + " " + host.path("outcome").asString())
                    .collect(Collectors.joining(", ")));
        }
        context.out().println("  entries of the audit trail: " + release.path("trail").valueStream()
                .map(entry -> entry.path("position").asString("not numbered yet")).collect(Collectors.joining(", ")));
    }
}

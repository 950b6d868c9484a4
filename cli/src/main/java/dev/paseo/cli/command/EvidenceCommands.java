package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo evidence add}, {@code sign-off}, {@code list} and {@code fetch}: what is added to a sealed version. */
final class EvidenceCommands {

    private EvidenceCommands() {}

    /** What all of them are about. */
    abstract static class OfVersion extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "COMPONENT")
        String component = "";

        @Parameters(index = "1", paramLabel = "VERSION")
        String version = "";

        OfVersion(Context context) {
            super(context);
        }

        String path(String... more) {
            return Api.path(Stream.concat(Stream.of("versions", component, version), Stream.of(more))
                    .toArray(String[]::new));
        }
    }

    @Command(name = "add", description = {
            "Adds a report, a signature or a statement to a version after it was sealed. It is never changed or taken "
                    + "away; gates that wait see it at once. The same file again changes nothing.",
            "A token that may do only that: paseo token make WORDS --may add-evidence"},
            footer = {"", "Examples:", "  paseo evidence add daylight-api 1.4.6 tests load-test.xml --in staging",
                    "  paseo evidence add daylight-api 1.4.6 signature daylight-api.jar.sig"})
    static final class Add extends OfVersion {
        @Parameters(index = "2", paramLabel = "KIND",
                description = "tests, coverage, findings, parts, signature or statement")
        private String kind = "";

        @Parameters(index = "3", paramLabel = "FILE", description = "at most 64 MB")
        private Path file = Path.of("");

        @Option(names = "--in", paramLabel = "ENVIRONMENT",
                description = "about the version as it is there; default: wherever it is")
        private Optional<String> in = Optional.empty();

        Add(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            if (!Files.isRegularFile(file)) {
                throw new Failure(Failure.Kind.USAGE, file + " cannot be read: there is no such file");
            }
            try {
                api().send(path("evidence", kind) + in.map(name -> "?environment=" + Api.encode(name)).orElse(""),
                        file, 0);
            } catch (IOException broken) {
                throw new Failure(Failure.Kind.UNREACHABLE, "The connection broke; sent again, it counts once: "
                        + broken.getMessage());
            }
            context.out().println(component + " " + version + " has " + file + " as " + kind + ".");
            return 0;
        }
    }

    @Command(name = "sign-off",
            description = "Adds what somebody says about a version, who may have no account here: their name and "
                    + "their words.",
            footer = {"", "Example:",
                    "  paseo evidence sign-off daylight-api 1.4.6 --name \"Ana Ruiz\" "
                            + "--words \"Walked it at the ford\" "
                            + "--in staging"})
    static final class SignOff extends OfVersion {
        @Option(names = "--name", required = true, paramLabel = "NAME", description = "whose word it is")
        private String name = "";

        @Option(names = "--words", required = true, paramLabel = "WORDS", description = "what they say")
        private String words = "";

        @Option(names = "--in", paramLabel = "ENVIRONMENT",
                description = "about the version as it is there; default: wherever it is")
        private Optional<String> in = Optional.empty();

        SignOff(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            ObjectNode said = api().object().put("name", name).put("words", words);
            in.ifPresent(environment -> said.put("environment", environment));
            api().post(path("sign-offs"), said);
            context.out().println(component + " " + version + " has the word of " + name + ".");
            return 0;
        }
    }

    @Command(name = "list", description = "What was added to a version after it was sealed, the oldest first.",
            footer = {"", "Example:", "  paseo evidence list daylight-api 1.4.6"})
    static final class ListAll extends OfVersion {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(path("evidence"));
            return print(all, () -> {
                if (all.isEmpty()) {
                    context.out().println("Nothing was added to " + component + " " + version + ".");
                    return;
                }
                Table table = new Table("KIND", "IN", "WHAT", "ADDED BY", "WHEN");
                all.forEach(each -> table.row(each.path("kind").asString(), each.path("environment").asString(""),
                        each.has("name") ? each.path("name").asString() + ": " + each.path("words").asString()
                                : each.path("sha256").asString(),
                        each.path("by").asString(), Times.exact(each.path("at"))));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "fetch", description = "Fetches a file that was added to a version, byte for byte.",
            footer = {"", "Example:", "  paseo evidence fetch daylight-api 1.4.6 SHA256 --into daylight-api.jar.sig"})
    static final class Fetch extends OfVersion {
        @Parameters(index = "2", paramLabel = "SHA256", description = "as list tells it")
        private String sha256 = "";

        @Option(names = "--into", required = true, paramLabel = "FILE", description = "what is written")
        private Path into = Path.of("");

        Fetch(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            WholeFile.write(into, out -> api().copy(path("evidence", sha256), out), part -> {});
            context.out().println(into + " is what was added.");
            return 0;
        }
    }
}

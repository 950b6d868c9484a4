package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.nio.file.Files;
import dev.paseo.cli.output.Table;
import dev.paseo.language.NearestName;
import tools.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.List;
import java.nio.file.Path;
import java.util.function.IntSupplier;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** {@code paseo environment load} and {@code edit}: what changes and what loosens is said before anything is loaded. */
final class EnvironmentFileCommands {

    private EnvironmentFileCommands() {}

    /** What both do with a file. */
    abstract static class OfFile extends ServiceCommand {
        @Option(names = "--loosen",
                description = "the file may ask less than the rules do now; without it, such a file is refused")
        private boolean loosen;

        @Option(names = "--dry-run",
                description = "only says what would change and what would loosen, and what the gates would have done "
                        + "to what went through them lately")
        private boolean dryRun;

        @Option(names = "--days", paramLabel = "DAYS",
                description = "how far a dry run looks back, 1 to 365 days; default: ${DEFAULT-VALUE}")
        private int days = 90;

        OfFile(Context context) {
            super(context);
        }

        /** Checks, says, and loads a text; what others changed since it was checked is not overwritten. */
        int load(Api api, String text, Path file) {
            JsonNode checked = api.post(Api.path("environments", "check"), api.object().put("text", text));
            if (!checked.path("problems").isEmpty()) {
                throw new Failure(
                        Failure.Kind.REFUSED, "Nothing was loaded, for the file has problems:\n"
                                + checked.path("problems").valueStream()
                                        .map(problem -> Words.at(file, problem) + problem.path("path").asString("")
                                                + " " + problem.path("message").asString())
                                        .collect(Collectors.joining("\n")));
            }
            Optional<JsonNode> past = dryRun ? Optional.of(DryRunLines.ask(api, text, days)) : Optional.empty();
            past.ifPresent(each -> ((ObjectNode) checked).set("dryRun", each));
            print(checked, () -> {
                checked.path("warnings")
                        .forEach(warning -> context.out().println(Words.warning(file, warning, context.ink())));
                checked.path("changes").forEach(change -> context.out()
                        .println(change.path("environment").asString() + ": " + change.path("what").asString()));
                checked.path("loosens")
                        .forEach(change -> context.out()
                                .println(context.ink().warn("loosens ") + change.path("environment").asString() + ": "
                                        + change.path("what").asString()));
                past.ifPresent(each -> DryRunLines.print(context, each, days));
            });
            return finish(api, text, file, checked);
        }

        private int finish(Api api, String text, Path file, JsonNode checked) {
            boolean loosens = !checked.path("loosens").isEmpty();
            if (dryRun) {
                return said("Nothing was loaded: this was a dry run.");
            }
            if (loosens && !loosen) {
                throw new Failure(Failure.Kind.REFUSED,
                        "Nothing was loaded, for " + file + " loosens rules. If that is meant, say so: --loosen");
            }
            api.put(Api.path("environments"), api.object().put("text", text)
                    .put("base", checked.path("digest").asString()).put("loosen", loosens));
            return said(done(file));
        }

        String done(Path file) {
            return "Loaded " + file + ".";
        }

        private int said(String sentence) {
            if (!wantsJson()) {
                context.out().println(sentence);
            }
            return 0;
        }
    }

    @Command(name = "load",
            description = "Loads an environments file: says what changes and what loosens, then loads all of it, or "
                    + "nothing where it has problems or loosens unsaid.",
            footer = {"",
                    "What the file names is what holds there: of each environment in it, gates, hours, closed "
                            + "periods and zone (without zone: UTC), and of each",
                    "component in it, its hosts and variables. Environments and components that it leaves out stay "
                            + "as they are.",
                    "",
                    "Examples:", "  paseo environment load environments.yaml --dry-run",
                    "  paseo environment load environments.yaml"})
    static final class Load extends OfFile {
        @Parameters(arity = "0..1", paramLabel = "FILE", description = "default: ${DEFAULT-VALUE}")
        private Path file = Path.of("environments.yaml");

        Load(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            try {
                return load(api(), Files.readString(file), file);
            } catch (IOException unreadable) {
                throw new Failure(Failure.Kind.USAGE, file + " cannot be read: "
                        + (Files.exists(file) ? unreadable.getMessage() : "there is no such file"));
            }
        }
    }

    @Command(name = "place",
            description = {
                    "Gives a component hosts in an environment: says what of the environments file changes, then "
                            + "loads it. Without a host, prints those that may be taken, each with a free address.",
                    "These hosts, and no others, are the component's there afterwards."},
            footer = {"", "Examples:", "  paseo environment place path-board test",
                    "  paseo environment place path-board test test-1",
                    "  paseo environment place path-board test test-1=http://test-1:8081 --dry-run",
                    "  paseo environment place path-board production north-hut --like staging --variable "
                            + "LOG_LEVEL=warn"})
    static final class Place extends OfFile {
        @Parameters(index = "0", paramLabel = "COMPONENT")
        private String component = "";

        @Parameters(index = "1", paramLabel = "ENVIRONMENT")
        private String environment = "";

        @Parameters(index = "2..*", arity = "0..*", paramLabel = "HOST[=URL]",
                description = "a host, and where the component answers there; default: a free port of the host")
        private List<String> hosts = List.of();

        @Option(names = "--like", paramLabel = "[COMPONENT:]ENVIRONMENT",
                description = "a place that this one begins as: its variables and the names of its secrets")
        private Optional<String> like = Optional.empty();

        @Option(names = "--variable", paramLabel = "NAME=VALUE",
                description = "a variable that differs from that place's; at a terminal each is asked")
        private Map<String, String> variables = new LinkedHashMap<>();

        Place(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode offers = api.get(Api.path("components", component, "places", "offers"));
            JsonNode here = offers.valueStream().filter(each -> each.path("environment").asString().equals(environment))
                    .findFirst().orElseThrow(() -> new Failure(Failure.Kind.REFUSED, "There is no environment "
                            + environment + NearestName.hint(environment, offers.valueStream()
                                    .map(each -> each.path("environment").asString()).toList())));
            if (hosts.isEmpty()) {
                return print(here, () -> tell(here.path("hosts")));
            }
            ObjectNode wanted = api.object();
            for (String each : hosts) {
                int at = each.indexOf('=');
                String host = at < 0 ? each : each.substring(0, at);
                wanted.put(host, at < 0 ? free(here, host) : each.substring(at + 1));
            }
            ObjectNode request = api.object();
            request.putObject("places").set(environment, wanted);
            List<String> secrets = like.map(other -> begin(api, other, request)).orElse(List.of());
            JsonNode drafted = api.post(Api.path("components", component, "places", "draft"), request);
            int code = load(api, drafted.path("text").asString(), Path.of("environments.yaml"));
            if (!secrets.isEmpty() && !wantsJson()) {
                context.out().println("It names " + String.join(", ", secrets)
                        + "; their values are not copied. Set each: paseo secret set " + secrets.getFirst()
                        + " --component "
                        + component
                        + " --environment " + environment);
            }
            return code;
        }

        /** Begins as another place; what may have to differ is asked. The secrets that come with it. */
        private List<String> begin(Api api, String other, ObjectNode request) {
            int at = other.indexOf(':');
            String of = at < 0 ? component : other.substring(0, at);
            String there = other.substring(at + 1);
            request.putObject("like").putObject(environment).put("component", of).put("environment", there);
            JsonNode place = api.get(Api.path("places", of, there, "settings")).path(0).path("settings");
            place.path("variables").properties().forEach(variable -> {
                if (!variables.containsKey(variable.getKey())) {
                    Asking.text(context, variable.getKey() + " in " + environment,
                            variable.getValue().asString())
                            .ifPresent(value -> variables.put(variable.getKey(), value));
                }
            });
            ObjectNode differing = request.putObject("variables").putObject(environment);
            variables.forEach(differing::put);
            return place.path("secrets").valueStream().map(JsonNode::asString).toList();
        }

        private static String free(JsonNode here, String host) {
            return here.path("hosts").valueStream().filter(each -> each.path("host").asString().equals(host))
                    .map(each -> each.path("url").asString()).findFirst()
                    .orElseThrow(() -> new Failure(Failure.Kind.REFUSED, host + " is not offered in "
                            + here.path("environment").asString() + NearestName.hint(host, here.path("hosts")
                                    .valueStream().map(each -> each.path("host").asString()).toList())
                            + "; enrol its agent, or give its address: " + host + "=URL"));
        }

        private void tell(JsonNode offered) {
            Table table = new Table("HOST", "ADDRESS", "");
            offered.forEach(each -> table.row(each.path("host").asString(), each.path("url").asString(),
                    each.path("taken").asBoolean() ? "has it already"
                            : each.path("others").isEmpty() ? "free"
                                    : "beside " + String.join(", ", each.path("others").valueStream()
                                            .map(JsonNode::asString).toList())));
            table.print(context.out(), context.ink());
        }

        @Override
        String done(Path file) {
            return component + " has " + hosts.size() + (hosts.size() == 1 ? " host in " : " hosts in ") + environment
                    + ".";
        }
    }

    @Command(name = "edit",
            description = "Opens all environments as a file in your editor ($VISUAL, else $EDITOR, else vi), and "
                    + "loads what you saved as load does.",
            footer = {"", "What you wrote is kept where it is refused; the message says where.", "", "Example:",
                    "  paseo environment edit --dry-run"})
    static final class Edit extends OfFile {
        Edit(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            String before = api.get(Api.path("environments", "file")).path("text").asString();
            try {
                Path file = Files.writeString(Files.createTempFile("environments-", ".yaml"), before);
                edit(file);
                String text = Files.readString(file);
                if (text.equals(before)) {
                    Files.delete(file);
                    context.out().println("Nothing was changed.");
                    return 0;
                }
                return kept(() -> load(api, text, file), file);
            } catch (IOException failed) {
                throw new Failure(Failure.Kind.REFUSED, "The environments cannot be edited: " + failed.getMessage());
            }
        }

        @Override
        String done(Path file) {
            return "The environments are changed.";
        }

        private static int kept(IntSupplier loading, Path file) {
            try {
                return loading.getAsInt();
            } catch (Failure refused) {
                throw new Failure(refused.kind(), refused.getMessage() + "\nWhat you wrote is kept in " + file);
            }
        }

        private static void edit(Path file) throws IOException {
            String editor = System.getenv().getOrDefault("VISUAL", System.getenv().getOrDefault("EDITOR", "vi"));
            try {
                int code = new ProcessBuilder("sh", "-c", editor + " \"$1\"", "edit", file.toString()).inheritIO()
                        .start().waitFor();
                if (code != 0) {
                    throw new IOException(editor + " ended with exit status " + code);
                }
            } catch (InterruptedException interrupted) {
                Thread.currentThread().interrupt();
                throw new IOException("interrupted while the editor was open");
            }
        }
    }
}

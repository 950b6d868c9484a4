package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo component ...}: where a component's source is and where its versions arrive. */
final class SourceCommands {

    private SourceCommands() {}

    static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read: " + failed.getMessage());
        }
    }

    static String secret(Context context) {
        try {
            return new String(context.in().readAllBytes(), StandardCharsets.UTF_8).strip();
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.USAGE, "Nothing could be read from standard input");
        }
    }

    @Command(name = "save",
            description = "Saves the pipeline file of a component without a repository; it is in force at once.",
            footer = {"", "Example:", "  paseo component save hut-planner paseo.yaml"})
    static final class Save extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "NAME")
        private String name = "";

        @Parameters(index = "1", paramLabel = "FILE")
        private Path file = Path.of("");

        Save(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode component = api.get(Api.path("components", name));
            String branch = component.path("mainBranch").asString();
            ObjectNode request = api.object().put("branch", branch)
                    .put("base", component.path("heads").path(branch).asString(""))
                    .put("text", read(file)).put("message", "saved by the client");
            JsonNode saved = api.post(Api.path("components", name, "pipeline", "commits"), request);
            return print(saved,
                    () -> context.out().println("Saved as " + saved.path("commit").asString() + "; it is in force."));
        }
    }

    @Command(name = "pushed",
            description = "Says who pushed a commit, where nobody told when it was noticed: gates that ask who its "
                    + "authors are then know.",
            footer = {"", "Example:",
                    "  paseo component pushed daylight-api 4f1c2ab93d0e5f6a7b8c9d0e1f2a3b4c5d6e7f80 --by developer"})
    static final class Pushed extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "NAME")
        private String name = "";

        @Parameters(index = "1", paramLabel = "COMMIT",
                description = "all its 40 (or 64) hexadecimal digits, as the gate's sentence has them")
        private String commit = "";

        @Option(names = "--by", paramLabel = "ACCOUNT", required = true,
                description = "the account of whoever pushed it")
        private String by = "";

        Pushed(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            api().put(Api.path("components", name, "pushes", commit), api().object().put("by", by));
            context.out().println(commit + " was pushed by " + by + "; gates that asked are judged again.");
            return 0;
        }
    }

    @Command(name = "observe",
            description = "Observes a registry, a Maven repository or a folder for versions that appear in it.",
            footer = {"", "Examples:",
                    "  paseo component observe hut-planner --registry http://127.0.0.1:7690 --name park/hut-planner "
                            + "--pattern \"2.*\"",
                    "  paseo component observe hut-planner --maven https://maven.park.example/releases --group "
                            + "park.huts --name planner",
                    "  paseo component observe hut-planner --folder file:///srv/drop --pattern "
                            + "\"hut-planner-{version}.tgz\""})
    static final class Observe extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--registry", paramLabel = "URL",
                description = "a registry that speaks the OCI distribution protocol")
        private Optional<String> registry = Optional.empty();

        @Option(names = "--maven", paramLabel = "URL", description = "a Maven repository")
        private Optional<String> maven = Optional.empty();

        @Option(names = "--folder", paramLabel = "URL", description = "a folder, as file:///path")
        private Optional<String> folder = Optional.empty();

        @Option(names = "--name", paramLabel = "NAME", description = "the registry's repository, or the artifact's id")
        private Optional<String> of = Optional.empty();

        @Option(names = "--group", description = "the group's id, of a Maven artifact")
        private Optional<String> group = Optional.empty();

        @Option(names = "--extension", description = "of a Maven artifact; default: jar")
        private Optional<String> extension = Optional.empty();

        @Option(names = "--pattern",
                description = "of tags or versions, default: **; of a folder's files, with {version}")
        private Optional<String> pattern = Optional.empty();

        @Option(names = "--existing", description = "what is there already arrives too")
        private boolean existing;

        @Option(names = "--account", paramLabel = "NAME",
                description = "for a registry; the password is read from standard input")
        private Optional<String> account = Optional.empty();

        Observe(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            String kind = registry.isPresent() ? "registry" : maven.isPresent() ? "maven" : "folder";
            ObjectNode request = api.object().put("kind", kind).put("pattern", pattern.orElse("**"))
                    .put("existing", existing)
                    .put("address", registry.or(() -> maven).or(() -> folder)
                            .orElseThrow(() -> new Failure(Failure.Kind.USAGE,
                                    "Name what to observe: --registry, --maven or --folder")));
            of.ifPresent(word -> request.put("name", word));
            group.ifPresent(word -> request.put("group", word));
            extension.ifPresent(word -> request.put("extension", word));
            account.ifPresent(word -> request.put("login", word + ":" + secret(context)));
            JsonNode stores = api.post(Api.path("components", name, "stores"), request);
            return print(stores, () -> context.out()
                    .println("Watched from now on; paseo component stores " + name + " says what was seen."));
        }
    }

    @Command(name = "stores", description = "The stores that are observed for a component, and what was seen in them.",
            footer = {"", "Example:", "  paseo component stores hut-planner"})
    static final class Stores extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--stop", paramLabel = "NUMBER", description = "observes this one no longer")
        private Optional<Long> stop = Optional.empty();

        Stores(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            stop.ifPresent(id -> api.delete(Api.path("components", name, "stores", Long.toString(id))));
            JsonNode stores = api.get(Api.path("components", name, "stores"));
            return print(stores, () -> stores.forEach(store -> {
                JsonNode where = store.path("where");
                context.out()
                        .println(
                                context.ink()
                                        .strong(store.path("id").asString("") + "  " + where.path("kind").asString()
                                                + " " + where.path("address").asString()
                                                + (where.has("name") ? " " + where.path("name").asString() : "") + " "
                                                + where.path("pattern").asString())
                                        + (store.has("error") ? "  " + store.path("error").asString()
                                                : store.has("lookedAt")
                                                        ? "  looked at " + Times.exact(store.path("lookedAt"))
                                                                + (store.path("sightings").isEmpty()
                                                                        ? "; nothing that matches is there yet" : "")
                                                        : "  not looked at yet"));
                Table table = new Table("SEEN", "NAME", "DIGEST", "BECAME");
                store.path("sightings")
                        .forEach(
                                each -> table.row(Times.exact(each.path("seenAt")), each.path("name").asString(),
                                        shorter(each.path("digest").asString()),
                                        each.has("version")
                                                ? name + " " + each.path("version").asString()
                                                        + (each.has("reason") ? "; " + each.path("reason").asString()
                                                                : "")
                                                : "nothing: " + each.path("reason").asString("")));
                table.print(context.out(), context.ink());
            }));
        }

        private static String shorter(String digest) {
            return digest.startsWith("sha") && digest.length() > 20 ? digest.substring(0, digest.indexOf(':') + 13)
                    : digest;
        }
    }

    @Command(name = "map-hook",
            description = "Says how hooks are read that cannot be signed per Standard Webhooks; the secret is read "
                    + "from standard input.",
            footer = {"", "They are sent to /hooks/v1/mapped/NAME of the service.", "", "Example:",
                    "  paseo component map-hook daylight-api --header X-Push-Digest --scheme hmac-sha256 --prefix "
                            + "digest: --pusher /who/account < secret"})
    static final class MapHook extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--header", required = true, description = "the header with the signature or the shared word")
        private String header = "";

        @Option(names = "--scheme", required = true,
                description = "hmac-sha256 of the body in hexadecimal, or shared-word")
        private String scheme = "";

        @Option(names = "--prefix", description = "what stands before it in the header")
        private Optional<String> prefix = Optional.empty();

        @Option(names = "--delivery", paramLabel = "HEADER", description = "the header with the message's number")
        private Optional<String> delivery = Optional.empty();

        @Option(names = "--pusher", paramLabel = "POINTER",
                description = "where the body says who pushed, as a JSON Pointer")
        private Optional<String> pusher = Optional.empty();

        MapHook(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("header", header).put("scheme", scheme).put("secret",
                    secret(context));
            prefix.ifPresent(word -> request.put("prefix", word));
            delivery.ifPresent(word -> request.put("delivery", word));
            pusher.ifPresent(word -> request.put("pusher", word));
            JsonNode mapped = api.put(Api.path("components", name, "hook-mapping"), request);
            return print(mapped,
                    () -> context.out().println("Hooks are read so at " + api.address() + "/hooks/v1/mapped/" + name));
        }
    }
}

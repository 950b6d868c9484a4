package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.core.text.Sha256;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.temporal.ChronoUnit;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

@Command(name = "verify", description = {
        "Says what a file is: of which version, built how, live where, when and by whose decision, and whether the "
                + "signature holds.",
        "With a statement and the key it asks no service. Exits 1 where the file is none of ours, or was changed."},
        footer = {"", "Examples:", "  paseo verify daylight-api.jar",
                "  paseo verify daylight-api.jar --statement daylight-api.statement.json --key key.txt"})
final class VerifyCommand extends ServiceCommand {

    /** The service tells of no more versions. */
    private static final int MOST = 20;

    @Parameters(paramLabel = "FILE | SHA-256", description = "the file, or its digest in hexadecimal")
    private String file = "";

    @Option(names = "--statement", paramLabel = "FILE", description = "as paseo statement prints it; needs --key")
    private Optional<Path> statement = Optional.empty();

    @Option(names = "--key", paramLabel = "FILE",
            description = "the service's keys, as paseo audit key prints them; default: those that the service tells")
    private Optional<Path> key = Optional.empty();

    VerifyCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        String sha256 = digest();
        if (statement.isPresent()) {
            return offline(sha256, SignedStatement.of(statement.get()), key.map(TrailCommands::text)
                    .orElseThrow(() -> new Failure(Failure.Kind.USAGE, "--statement needs --key FILE, with the key "
                            + "of the service that is trusted: a statement's own word for itself proves nothing")));
        }
        JsonNode origin = api().get(Api.path("origins", sha256));
        String by = TrailCommands.believed(origin.path("key").asString(), key);
        boolean good = origin.path("versions").valueStream()
                .allMatch(each -> reasonAgainst(each, by, sha256).isEmpty());
        print(origin, () -> {
            line(context.ink().quiet("sha256 " + sha256));
            origin.path("versions").forEach(each -> sealed(each, reasonAgainst(each, by, sha256)));
            if (origin.path("versions").size() == MOST) {
                line("At most " + MOST + " versions are told of: those that are live, then the newest.");
            }
            origin.path("made").forEach(each -> line("made by run " + each.path("component").asString() + "#"
                    + each.path("run").asString("") + ", " + Times.exact(each.path("at")) + ", as "
                    + each.path("artifact").asString()
                    + ": no version was sealed with it, so it was never deployed"));
        });
        return good && !origin.path("versions").isEmpty() ? 0 : 1;
    }

    private void line(String text) {
        context.out().println(text);
    }

    /** Of a file; what is written as a digest and is no file is one itself. */
    private String digest() {
        Path path = Path.of(file);
        if (!Files.exists(path) && file.matches("[0-9a-fA-F]{64}")) {
            return file.toLowerCase(Locale.ROOT);
        }
        MessageDigest digest = Sha256.digest();
        try (InputStream in = new DigestInputStream(Files.newInputStream(path), digest)) {
            in.transferTo(OutputStream.nullOutputStream());
        } catch (IOException unread) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read"
                    + (Files.exists(path) ? ": " + unread.getMessage()
                            : ": there is no such file, and it is no SHA-256 of 64 hexadecimal digits"));
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    private static Optional<String> reasonAgainst(JsonNode sealed, String key, String sha256) {
        try {
            return SignedStatement.of(sealed.path("statement")).reasonAgainst(key, sha256);
        } catch (JacksonException | IllegalArgumentException unread) {
            return Optional.of("the statement cannot be read");
        }
    }

    private void sealed(JsonNode sealed, Optional<String> reason) {
        line(context.ink().strong(sealed.path("component").asString() + " " + sealed.path("version").asString())
                + ", its " + sealed.path("artifact").asString() + " (" + sealed.path("fileName").asString() + ")"
                + (sealed.path("blocked").asBoolean() ? context.ink().bad("  blocked: nobody deploys it any more")
                        : ""));
        line("  " + (sealed.has("run") ? "built by run " + sealed.path("component").asString() + "#"
                + sealed.path("run").asString("") : "arrived " + sealed.path("origin").asString(""))
                + (sealed.has("commit") ? " from " + short8(sealed.path("commit")) + " of "
                        + sealed.path("branch").asString() : "")
                + (sealed.has("commitSummary") ? ", \"" + sealed.path("commitSummary").asString() + "\"" : "")
                + ", sealed " + Times.zoned(sealed.path("sealedAt")));
        line("  " + reason.map(why -> context.ink().bad("wrong: ") + why).orElse(context.ink().good("signature good: ")
                + "the service's statement is about this very file"
                + (key.isPresent() ? "" : ", by the key that the service tells; --key holds it against yours")));
        if (sealed.path("stays").isEmpty()) {
            line("  has never been live");
        }
        sealed.path("stays").forEach(this::stay);
    }

    private void stay(JsonNode stay) {
        boolean live = !stay.has("until");
        String hosts = stay.path("hosts").valueStream().filter(host -> !live || !host.has("until"))
                .map(host -> host.path("host").asString()).distinct().collect(Collectors.joining(", "));
        String decisions = decided(stay, true, "; approved by ") + decided(stay, false, "; rejected by ");
        line("  " + (live ? context.ink().good("live") + " in " : "was live in ")
                + context.ink().strong(stay.path("environment").asString())
                + (live ? " since " + Times.zoned(stay.path("from")) : " from " + Times.zoned(stay.path("from"))
                        + " to " + Times.zoned(stay.path("until")))
                + (hosts.isEmpty() ? "" : ", on " + hosts) + ", deployment " + stay.path("deployment").asString("")
                + (stay.has("emergency") ? context.ink().bad(", an emergency: ") + stay.path("emergency").asString()
                        : "")
                + decisions);
    }

    private static String decided(JsonNode stay, boolean yes, String words) {
        String by = stay.path("decisions").valueStream().filter(each -> each.path("yes").asBoolean() == yes)
                .map(each -> each.path("by").asString() + (each.has("inPlaceOf")
                        ? " in place of " + each.path("inPlaceOf").asString() : ""))
                .distinct().collect(Collectors.joining(", "));
        return by.isEmpty() ? "" : words + by;
    }

    private int offline(String sha256, SignedStatement signed, String trusted) {
        Optional<String> reason = signed.reasonAgainst(trusted, sha256);
        if (wantsJson()) {
            context.printJson(signed.whole());
            return reason.isPresent() ? 1 : 0;
        }
        line(context.ink().quiet("sha256 " + sha256));
        if (reason.isPresent()) {
            line(context.ink().bad("wrong: ") + reason.get());
            return 1;
        }
        JsonNode predicate = signed.whole().path("predicate");
        JsonNode version = predicate.has("version") ? predicate.path("version") : predicate.path("paseo_version");
        JsonNode asked = predicate.path("buildDefinition").path("externalParameters");
        line(context.ink().good("good: ") + "signed, and about this very file");
        signed.replaced(trusted).ifPresent(at -> line("  by a key that was replaced on "
                + at.truncatedTo(ChronoUnit.SECONDS)
                + ": whoever has that one can sign so since; the service tells what it signed itself: paseo verify "
                + file));
        line(context.ink().strong(version.path("component").asString() + " " + version.path("version").asString()));
        told("repository", asked.path("repository"));
        told("branch", asked.path("branch"));
        told("commit", asked.path("commit"));
        told("origin", asked.path("origin"));
        told("run", predicate.path("runDetails").path("metadata").path("invocationId"));
        told("sealed", predicate.path("runDetails").path("metadata").path("finishedOn"));
        told("environment", predicate.path("environment"));
        told("deployment", predicate.path("deployment"));
        told("live", predicate.path("liveOn"));
        told("emergency", predicate.path("emergency"));
        predicate.path("decisions").forEach(each -> line("  " + (each.path("decision").asString().equals("yes")
                ? "approved by " : "rejected by ") + each.path("by").asString()));
        predicate.path("hosts").forEach(host -> told("host", host));
        return 0;
    }

    private void told(String name, JsonNode value) {
        if (!value.isMissingNode()) {
            line("  " + name + ": " + value.asString(""));
        }
    }
}

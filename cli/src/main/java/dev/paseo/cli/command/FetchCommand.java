package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.core.text.Sha256;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "fetch", description = {
        "Fetches an artifact of a version, or what a run has made, whatever became of it; what does not have its "
                + "digest is refused.",
        "Only versions are ever deployed."},
        footer = {"", "Examples:", "  paseo fetch daylight-api 1.4.1 app", "  paseo fetch daylight-api \"#41\" app"})
final class FetchCommand extends ServiceCommand {

    @Parameters(index = "0", paramLabel = "COMPONENT")
    private String component = "";

    @Parameters(index = "1", paramLabel = "VERSION | #RUN")
    private String version = "";

    @Parameters(index = "2", paramLabel = "ARTIFACT")
    private String artifact = "";

    @Option(names = "--into", paramLabel = "FILE", description = "default: the artifact's own file name, here")
    private Optional<Path> into = Optional.empty();

    FetchCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        JsonNode made = run() ? api.get(Api.path("runs", component, version.substring(1))).path("outputs")
                : api.get(Api.path("versions", component, version)).path("artifacts");
        for (JsonNode each : made) {
            if (each.path("name").asString().equals(artifact)) {
                Path file = into.orElse(Path.of(Path.of(each.path("fileName").asString()).getFileName().toString()));
                write(api, file, each.path("digest").asString());
                context.out().println(each.path("digest").asString() + "  " + file);
                return 0;
            }
        }
        throw new Failure(Failure.Kind.REFUSED, component + (run() ? "" : " ") + version + " has no artifact "
                + artifact
                + (made.isEmpty() ? "" : "; it has "
                        + String.join(", ", made.valueStream().map(each -> each.path("name").asString()).toList())));
    }

    private boolean run() {
        return version.matches("#[0-9]+");
    }

    private void write(Api api, Path file, String wanted) {
        MessageDigest digest = Sha256.digest();
        WholeFile.write(file, out -> api.copy(run()
                ? Api.path("runs", component, version.substring(1), "outputs", artifact)
                : Api.path("versions", component, version, "artifacts", artifact),
                new DigestOutputStream(out, digest)), part -> {
                    String found = HexFormat.of().formatHex(digest.digest());
                    if (!found.equals(wanted)) {
                        throw new Failure(Failure.Kind.REFUSED, "What came is not " + artifact + " of " + component
                                + " " + version + ": its digest is " + found + ", and should be " + wanted + ". "
                                + file + " was not written.");
                    }
                });
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "fetch", description = "Fetches an artifact of a version.", footer = {"", "Example:", "  paseo fetch daylight-api 1.4.1 app"})
final class FetchCommand extends ServiceCommand {

    @Parameters(index = "0", paramLabel = "COMPONENT")
    private String component = "";

    @Parameters(index = "1", paramLabel = "VERSION")
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
        for (JsonNode each : api.get(Api.path("versions", component, version)).path("artifacts")) {
            if (each.path("name").asString().equals(artifact)) {
                Path file = into.orElse(Path.of(Path.of(each.path("fileName").asString()).getFileName().toString()));
                write(api, file);
                context.out().println(each.path("digest").asString() + "  " + file);
                return 0;
            }
        }
        throw new Failure(Failure.Kind.REFUSED, component + " " + version + " has no artifact " + artifact);
    }

    private void write(Api api, Path file) {
        try (OutputStream out = Files.newOutputStream(file)) {
            api.copy(Api.path("versions", component, version, "artifacts", artifact), out);
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.REFUSED, file + " cannot be written: " + failed.getMessage());
        }
    }
}

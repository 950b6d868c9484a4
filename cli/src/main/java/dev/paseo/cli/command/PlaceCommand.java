package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.Optional;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A command about one component in one environment. */
abstract class PlaceCommand extends ServiceCommand {

    @Parameters(paramLabel = "COMPONENT")
    protected String component = "";

    @Option(names = "--in", required = true, paramLabel = "ENVIRONMENT")
    protected String environment = "";

    PlaceCommand(Context context) {
        super(context);
    }

    protected String place(String... more) {
        String path = Api.path("places", component, environment);
        return more.length == 0 ? path : path + "/" + String.join("/", more);
    }

    protected static String reason(Optional<String> reason) {
        return "?reason=" + Api.encode(reason.orElse(""));
    }
}

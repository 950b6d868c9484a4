package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

/** A command that asks a service. */
abstract class ServiceCommand implements Callable<Integer> {

    /** How answers are printed. */
    enum Output { table, json }

    @Option(names = "--service", paramLabel = "NAME|URL",
            description = "the service to ask; default: the one signed in to last")
    private Optional<String> service = Optional.empty();

    @Option(names = "--output", defaultValue = "table",
            description = "table, for people, or json, for programs; default: ${DEFAULT-VALUE}")
    private Output output = Output.table;

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    final Context context;

    ServiceCommand(Context context) {
        this.context = context;
    }

    Api api() {
        return context.api(service);
    }

    boolean wantsJson() {
        return output == Output.json;
    }

    /** Prints the answer as it came where JSON is wanted, otherwise for people. */
    int print(JsonNode answer, Runnable forPeople) {
        if (wantsJson()) {
            context.printJson(answer);
        } else {
            forPeople.run();
        }
        return 0;
    }

    static String short8(JsonNode digest) {
        String text = digest.asString("");
        return text.length() > 8 ? text.substring(0, 8) : text;
    }
}

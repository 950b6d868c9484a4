package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "release-notes", description = {
        "Notes for an announcement, as Markdown, from the commits: of a version of a component, or of what is new in "
                + "an environment.",
        "Merges are left out, and what several commits say alike is said once."},
        footer = {"", "Examples:", "  paseo release-notes daylight-api 1.4.6 --from 1.4.1",
                "  paseo release-notes --in production --since 7d"})
final class ReleaseNotesCommand extends ServiceCommand {

    @Parameters(index = "0", arity = "0..1", paramLabel = "COMPONENT")
    private Optional<String> component = Optional.empty();

    @Parameters(index = "1", arity = "0..1", paramLabel = "VERSION")
    private Optional<String> version = Optional.empty();

    @Option(names = "--from", paramLabel = "VERSION", description = "the one before it; default: all that it has")
    private Optional<String> from = Optional.empty();

    @Option(names = "--in", paramLabel = "ENVIRONMENT", description = "instead of a component: what is new there")
    private Optional<String> in = Optional.empty();

    @Option(names = "--since", paramLabel = "TIME", defaultValue = "7d",
            description = "with --in: ISO 8601, or how long ago; default: ${DEFAULT-VALUE}")
    private String since = "7d";

    @Option(names = "--until", paramLabel = "TIME", description = "likewise; default: now")
    private Optional<String> until = Optional.empty();

    ReleaseNotesCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (in.isPresent() == component.isPresent() || component.isPresent() && version.isEmpty()) {
            throw new Failure(Failure.Kind.USAGE, "should be COMPONENT VERSION, or --in ENVIRONMENT");
        }
        String query = in.map(environment -> "?environment=" + Api.encode(environment) + "&since="
                + RestraintCommands.past(since)
                + until.map(time -> "&until=" + RestraintCommands.past(time)).orElse(""))
                .orElseGet(() -> "?component=" + Api.encode(component.orElseThrow()) + "&to="
                        + Api.encode(version.orElseThrow())
                        + from.map(before -> "&from=" + Api.encode(before)).orElse(""));
        context.out().print(api().text(Api.path("release-notes") + query));
        return 0;
    }
}

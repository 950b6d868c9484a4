package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(name = "statement", description = {
        "Prints a signed statement: of a version how it came about, of a deployment that it went live and by whose "
                + "decision.",
        "It is an in-toto statement in a DSSE envelope; paseo verify FILE --statement FILE holds it against a file."},
        footer = {"", "Examples:", "  paseo statement daylight-api 1.4.1 > daylight-api.statement.json",
                "  paseo statement deployment 7"})
final class StatementCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "COMPONENT VERSION | deployment NUMBER", hideParamSyntax = true)
    private List<String> subject = List.of();

    StatementCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        context.printJson(api().get(switch (Subject.of(subject)) {
            case Subject.Version(String component, String number) -> Api.path("versions", component, number,
                    "statement");
            case Subject.Deployment(String id) -> Api.path("deployments", id, "statement");
            default -> throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", subject)
                    + "” should be COMPONENT VERSION or deployment NUMBER: only these are stated");
        }));
        return 0;
    }
}

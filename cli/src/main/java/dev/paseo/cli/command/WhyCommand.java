package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "why", description = "The chain of causes, back to a push or a person.",
        footer = {"", "Examples:", "  paseo why tide-api#1", "  paseo why deployment 7", "  paseo why tide-api 1.4.1"})
final class WhyCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "COMPONENT#RUN | deployment NUMBER | COMPONENT VERSION", hideParamSyntax = true)
    private List<String> subject = List.of();

    WhyCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        return switch (Subject.of(subject)) {
            case Subject.Run(String component, String number) -> {
                JsonNode run = api.get(Api.path("runs", component, number));
                yield print(run.path("causes"), () -> {
                    head(component + "#" + number, run.path("run").path("status").asString(), run.path("run"));
                    causes(run.path("causes"));
                });
            }
            case Subject.Deployment(String id) -> {
                JsonNode why = api.get(Api.path("deployments", id, "why"));
                yield print(why, () -> deployment(id, why));
            }
            case Subject.Version(String component, String number) -> {
                JsonNode version = api.get(Api.path("versions", component, number));
                yield print(version.path("causes"), () -> {
                    context.out().println(context.ink().strong(component + " " + number) + " was sealed by run " + component + "#"
                            + version.path("run").asString("") + ", " + Times.exact(version.path("sealedAt")));
                    causes(version.path("causes"));
                });
            }
        };
    }

    private void head(String name, String status, JsonNode what) {
        context.out().println(context.ink().strong(name) + " " + context.ink().state(status)
                + (what.has("reason") ? ": " + what.path("reason").asString() : ""));
    }

    private void deployment(String id, JsonNode why) {
        JsonNode deployment = why.path("deployment");
        head("deployment " + id + ": " + deployment.path("component").asString() + " " + deployment.path("version").asString() + " into "
                + deployment.path("environment").asString(), deployment.path("status").asString(), deployment);
        for (JsonNode ruling : why.path("rulings")) {
            context.out().println("  " + (ruling.path("yes").asBoolean() ? "approved" : "rejected") + " by " + ruling.path("by").asString()
                    + (ruling.path("comment").asString("").isEmpty() ? "" : ": \"" + ruling.path("comment").asString() + "\"")
                    + ", " + Times.exact(ruling.path("at")) + (ruling.path("counts").asBoolean() ? "" : " (no longer counts)"));
        }
        causes(why.path("causes"));
    }

    private void causes(JsonNode causes) {
        for (JsonNode cause : causes) {
            context.out().println("  because of " + cause.path("sentence").asString() + context.ink().quiet(", " + Times.exact(cause.path("at"))));
        }
    }
}

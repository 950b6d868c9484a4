package dev.paseo.cli.command;

import dev.paseo.core.text.Size;
import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.io.PrintWriter;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "show", description = "A run, a deployment or a version.",
        footer = {"", "Examples:", "  paseo show deployment 7", "  paseo show daylight-api#1",
                "  paseo show daylight-api#1 --times",
                "  paseo show daylight-api 1.4.1"})
final class ShowCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "COMPONENT#RUN | deployment NUMBER | passage NUMBER | COMPONENT VERSION",
            hideParamSyntax = true)
    private List<String> subject = List.of();

    @Option(names = "--times", description = "of a run: where its time went, stage by stage and step by step")
    private boolean times;

    ShowCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        return switch (Subject.of(subject)) {
            case Subject.Run(String component, String number) -> {
                JsonNode run = api.get(Api.path("runs", component, number));
                yield print(run, () -> {
                    if (times) {
                        TimeLines.print(context, run, Instant.now());
                    } else {
                        run(component + "#" + number, run);
                    }
                });
            }
            case Subject.Deployment(String id) -> {
                JsonNode deployment = api.get(Api.path("deployments", id));
                yield print(deployment, () -> deployment(id, deployment));
            }
            case Subject.Passage(String id) -> {
                JsonNode passage = api.get(Api.path("passages", id));
                yield print(passage, () -> passage(id, passage));
            }
            case Subject.Version(String component, String number) -> {
                JsonNode version = api.get(Api.path("versions", component, number));
                yield print(version, () -> version(version));
            }
        };
    }

    private PrintWriter out() {
        return context.out();
    }

    private void heading(String text) {
        out().println();
        out().println(context.ink().strong(text));
    }

    private void run(String name, JsonNode view) {
        JsonNode run = view.path("run");
        out().println(context.ink().strong(name) + " " + context.ink().state(run.path("status").asString())
                + (run.has("reason") ? ": " + run.path("reason").asString() : ""));
        out().println(run.path("branch").asString() + " at " + short8(run.path("commit")) + ", \""
                + run.path("commitSummary").asString()
                + "\" by " + run.path("commitAuthor").asString());
        if (view.has("waitsForRun")) {
            out().println("waits for " + run.path("component").asString() + "#" + view.path("waitsForRun").asString("")
                    + " of its line to end");
        }
        Table table = new Table("STAGE", "ATTEMPT", "STATE", "BEGAN", "ENDED", "");
        view.path("stages")
                .forEach(stage -> table.row(
                        (stage.path("name").asString() + " " + stage.path("variant").asString("")).strip(),
                        stage.path("attempt").asString(""), context.ink().state(stage.path("status").asString()),
                        Times.exact(stage.path("startedAt")),
                        Times.exact(stage.path("endedAt")),
                        stage.path("waitsFor").asString(stage.path("reason").asString(""))));
        if (view.path("stages").isEmpty()) {
            out().println("no stages: nothing is built, the commit's files are the artifact");
        } else {
            table.print(out(), context.ink());
        }
        if (run.has("startedAt")) {
            out().println("waited " + waited(run) + (run.has("endedAt") ? ", took " + ListCommands.took(run) : "")
                    + ListCommands.without(run));
        }
        view.path("pieces").forEach(piece -> out().println("piece: " + piece.path("piece").asString() + " of "
                + piece.path("of").asString() + " " + piece.path("version").asString()
                + context.ink().quiet("  " + short8(piece.path("digest"))
                        + (piece.has("within") ? ", through " + piece.path("within").asString() : ""))));
        reports(api()
                .get(Api.path("runs", run.path("component").asString(), run.path("number").asString(""), "evidence")));
        artifacts(view.path("outputs"));
    }

    private static String waited(JsonNode run) {
        return Times.length(Duration.between(Instant.parse(run.path("createdAt").asString()),
                Instant.parse(run.path("startedAt").asString())));
    }

    /** What the reports of its stages tell. */
    private void reports(JsonNode evidence) {
        if (evidence.path("tests").isEmpty() && evidence.path("coverage").isEmpty()
                && evidence.path("findings").isEmpty()) {
            return;
        }
        heading("Reports");
        evidence.path("tests")
                .forEach(each -> line(each,
                        counted(each.path("tests").path("total"), "test") + ", "
                                + each.path("tests").path("failed").asString("0") + " failed, "
                                + each.path("tests").path("skipped").asString("0") + " skipped"));
        evidence.path("coverage").forEach(each -> line(each, !each.has("lines") ? "coverage not reported"
                : String.format(Locale.ENGLISH, "%.1f %% of lines covered", each.path("lines").asDouble() * 100)));
        evidence.path("findings").forEach(each -> line(each, counted(each.path("findings").path("errors"), "error")
                + ", " + counted(each.path("findings").path("warnings"), "warning")));
    }

    private static String counted(JsonNode count, String word) {
        return count.asInt() + " " + word + (count.asInt() == 1 ? "" : "s");
    }

    private void line(JsonNode report, String words) {
        out().println("  " + (report.path("stage").asString() + " " + report.path("variant").asString("")).strip()
                + ": " + words);
    }

    private void artifacts(JsonNode artifacts) {
        if (!artifacts.isEmpty()) {
            heading("Artifacts");
            Table table = new Table("NAME", "FILE", "SIZE", "SHA-256");
            artifacts.forEach(each -> table.row(each.path("name").asString(), each.path("fileName").asString(),
                    Size.words(each.path("size").asLong()),
                    each.path("digest").asString()));
            table.print(out(), context.ink());
        }
    }

    private void version(JsonNode version) {
        out().println(
                context.ink().strong(version.path("component").asString() + " " + version.path("number").asString())
                        + (version.has("commit")
                                ? " of " + version.path("branch").asString() + " at " + short8(version.path("commit"))
                                : ", built elsewhere")
                        + (version.has("run") ? ", run #" + version.path("run").asString("") : "") + ", sealed "
                        + Times.exact(version.path("sealedAt")));
        artifacts(version.path("artifacts"));
        heading("Walk");
        Table table = new Table("ENVIRONMENT", "LIVE FIRST", "LIVE THERE NOW", "PASSAGE");
        version.path("walk").forEach(stop -> table.row(stop.path("environment").asString(),
                stop.has("openedAt") ? Times.exact(stop.path("openedAt")) : "not yet",
                stop.path("live").asString("nothing"), stop.path("passage").asString("")));
        table.print(out(), context.ink());
        version.path("walk").forEach(stop -> {
            if (stop.has("keeps")) {
                out().println(
                        context.ink().warn("It does not go on from " + stop.path("environment").asString() + " yet")
                                + ": " + stop.path("keeps").asString());
            }
            if (stop.has("stays")) {
                out().println(context.ink().warn("It stays before " + stop.path("environment").asString()) + ": "
                        + stop.path("stays").asString() + ". When that is mended, it goes on by itself.");
            } else if (stop.has("noPlace")) {
                out().println(context.ink().warn("It cannot go into " + stop.path("environment").asString()) + ": "
                        + stop.path("noPlace").asString() + ".");
            }
        });
    }

    private void deployment(String id, JsonNode view) {
        JsonNode deployment = view.path("deployment");
        out().println(context.ink().strong(
                deployment.path("component").asString() + " " + deployment.path("version").asString()) + " into "
                + deployment.path("environment").asString() + ": deployment " + id + ", "
                + context.ink().state(deployment.path("status").asString())
                + (deployment.has("reason") ? ": " + deployment.path("reason").asString() : ""));
        out().println((deployment.path("emergency").asBoolean() ? context.ink().warn("emergency ") : "")
                + deployment.path("kind").asString() + " requested by "
                + deployment.path("requestedBy").asString("the walk") + ", "
                + Times.exact(deployment.path("requestedAt")));
        if (deployment.has("startedAt")) {
            out().println("began " + Times.exact(deployment.path("startedAt"))
                    + (deployment.has("liveAt") ? ", live after " + ListCommands.live(deployment) : "")
                    + ListCommands.without(deployment));
        }
        view.path("cautions").forEach(each -> out().println(context.ink().warn("note: ") + each.asString() + "."));
        if (view.has("url")) {
            out().println("address: " + view.path("url").asString()
                    + (view.has("behindUrl") ? ", before it: " + view.path("behindUrl").asString() : ""));
        }
        if (view.has("newer")) {
            out().println("newer: " + view.path("newer").asString() + " could be requested instead");
        }
        gate(view);
        if (view.path("asksToGoOn").asBoolean()) {
            out().println(context.ink().need("Asks whether it goes on: ") + "paseo continue deployment " + id
                    + ", or with --no");
        }
        changes(view.path("comparison"), deployment.has("startedAt"));
        heading("Plan");
        PlanLines.of(view.path("plan")).forEach(out()::println);
        hosts(view);
        if (view.path("mayNot").isMissingNode()) {
            out().println();
            out().println(
                    context.ink().need("You may decide: ") + "paseo approve deployment " + id + " --comment \"…\"");
        }
    }

    private void hosts(JsonNode view) {
        heading("Hosts");
        Table table = new Table("HOST", "STATE", "HAS", "");
        view.path("hosts").forEach(host -> table.row(host.path("host").asString(), host.path("phase").asString(),
                host.path("unknown").asBoolean() ? "unknown" : host.path("live").asString("nothing"),
                host.path("reason").asString("")));
        table.print(out(), context.ink());
    }

    private void passage(String id, JsonNode view) {
        out().println(context.ink().strong(view.path("component").asString() + " " + view.path("version").asString())
                + " in " + view.path("environment").asString()
                + ": passage " + id + ", " + context.ink().state(view.path("status").asString())
                + (view.has("endedAt") ? " " + Times.exact(view.path("endedAt")) + "; it began " : " since ")
                + Times.exact(view.path("openedAt")));
        if (view.path("testFailed").asBoolean()) {
            out().println(context.ink().bad("It stays here") + ": " + view.path("reason").asString());
        }
        gate(view);
        if (view.path("mayNotTick").isMissingNode()) {
            out().println();
            out().println(context.ink().need("You may tick: ") + "paseo tick passage " + id + " \"ITEM\"");
        }
    }

    private void gate(JsonNode view) {
        if (!view.path("gate").isEmpty()) {
            heading("Gate");
            Table table = new Table("STATE", "CRITERION", "");
            view.path("gate")
                    .forEach(each -> table.row(context.ink().state(each.path("state").asString()),
                            each.path("name").asString(),
                            each.path("sentence").asString()));
            table.print(out(), context.ink());
        }
        view.path("decisions").forEach(decision -> out().println("  " + Words.ofDecision(decision)));
        view.path("checklists").forEach(list -> list.path("items")
                .forEach(item -> out().println("  " + context.ink().state(item.path("outcome").asString("open")) + "  "
                        + item.path("item").asString()
                        + context.ink().quiet(item.has("by") ? "  " + item.path("by").asString() : "")
                        + (item.has("note") ? "  \"" + item.path("note").asString() + "\"" : ""))));
    }

    private void changes(JsonNode comparison, boolean begun) {
        heading((begun ? "What changed, against " : "What would change, against ")
                + comparison.path("live").asString("nothing"));
        ChangeLines lines = new ChangeLines(context);
        lines.print(comparison);
        lines.end();
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "watch",
        description = "Follows a run, with its log, or a deployment, with its hosts, until it ends; exits 0 where "
                + "the run passed or warned, or the deployment is live, 1 otherwise.",
        footer = {"", "Examples:", "  paseo watch daylight-api#1", "  paseo watch deployment 7"})
final class WatchCommand extends ServiceCommand {

    private static final Set<String> ENDED = Set.of("passed", "warned", "failed", "cancelled");

    @Parameters(arity = "1..2", paramLabel = "COMPONENT#RUN | deployment NUMBER", hideParamSyntax = true)
    private List<String> subject = List.of();

    private final Map<String, Long> next = new HashMap<>();
    private final Map<String, String> told = new HashMap<>();

    WatchCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        return switch (Subject.of(subject)) {
            case Subject.Run(String component, String number) -> run(component, number);
            case Subject.Deployment(String id) -> deployment(id);
            default -> throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", subject)
                    + "” should be COMPONENT#RUN, such as daylight-api#41, or deployment NUMBER");
        };
    }

    private int deployment(String id) {
        JsonNode view = new DeploymentWatch(context, wantsJson()).until(api(), id, WatchCommand::pause);
        print(view, () -> {});
        return DeploymentWatch.good(view) ? 0 : 1;
    }

    private int run(String component, String number) {
        Api api = api();
        while (true) {
            JsonNode view = api.get(Api.path("runs", component, number));
            boolean read = false;
            for (JsonNode stage : view.path("stages")) {
                read |= stage(api, component, number, stage);
            }
            String status = view.path("run").path("status").asString();
            if (ENDED.contains(status)) {
                return ended(view, status);
            }
            if (!read) {
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(200);
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw new Failure(Failure.Kind.REFUSED, "Interrupted; what was watched goes on");
        }
    }

    /** True where it waited for the log, so that the caller need not. */
    private boolean stage(Api api, String component, String number, JsonNode stage) {
        String name = (stage.path("name").asString() + " " + stage.path("variant").asString("")).strip()
                + (stage.path("attempt").asInt() > 1 ? ", attempt " + stage.path("attempt").asString("") : "");
        String status = stage.path("status").asString();
        boolean begun = stage.has("startedAt");
        if (begun && told.put(name, status) == null && !wantsJson()) {
            context.out().println(context.ink().strong("── " + name));
        }
        boolean waited = false;
        if (begun && !wantsJson()) {
            waited = status.equals("running");
            lines(api, component, number, stage, name, waited ? 1000 : 0);
        }
        return waited;
    }

    private void lines(Api api, String component, String number, JsonNode stage, String name, long waitMillis) {
        JsonNode log;
        do {
            long from = next.getOrDefault(name, 1L);
            log = api.get(
                    Api.path("runs", component, number, "stages", stage.path("name").asString(), "log") + "?variant="
                            + Api.encode(stage.path("variant").asString("")) + "&attempt="
                            + stage.path("attempt").asString("") + "&from=" + from + "&waitMillis=" + waitMillis);
            log.path("lines").forEach(line -> context.out().println(line.path("text").asString()));
            context.out().flush();
            next.put(name, log.path("next").asLong());
        } while (!log.path("lines").isEmpty() && waitMillis == 0);
    }

    private int ended(JsonNode view, String status) {
        print(view, () -> {
            JsonNode summary = view.path("run");
            context.out().println(context.ink().strong(subject.getFirst()) + " " + context.ink().state(status)
                    + (summary.has("reason") ? ": " + summary.path("reason").asString() : "")
                    + (summary.path("sealed").asBoolean() ? ", sealed " + summary.path("version").asString() : ""));
        });
        return status.equals("passed") || status.equals("warned") ? 0 : 1;
    }
}

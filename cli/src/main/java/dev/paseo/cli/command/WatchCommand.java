package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "watch",
        description = "Follows a run, with its log, or a deployment, with its hosts, until it ends; exits 0 where "
                + "the run passed or warned, or the deployment is live, 1 otherwise. A version is followed into one "
                + "environment: its deployment there is waited for, and why it stays before it is said.",
        footer = {"", "Examples:", "  paseo watch daylight-api#1", "  paseo watch deployment 7",
                "  paseo watch daylight-api 1.4.7 --in test"})
final class WatchCommand extends ServiceCommand {

    private static final Set<String> ENDED = Set.of("passed", "warned", "failed", "cancelled");

    @Parameters(arity = "1..2", paramLabel = "COMPONENT#RUN | deployment NUMBER | COMPONENT VERSION",
            hideParamSyntax = true)
    private List<String> subject = List.of();

    @Option(names = "--in", paramLabel = "ENVIRONMENT", description = "where a version is followed to")
    private Optional<String> environment = Optional.empty();

    private final Map<String, Long> next = new HashMap<>();
    private final Map<String, String> told = new HashMap<>();

    WatchCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Subject followed = Subject.of(subject);
        if (environment.isPresent() != followed instanceof Subject.Version) {
            throw new Failure(Failure.Kind.USAGE, environment.isPresent()
                    ? "--in is for a version, such as daylight-api 1.4.7 --in test"
                    : "Say into which environment the version is followed: --in ENVIRONMENT");
        }
        return switch (followed) {
            case Subject.Run(String component, String number) -> run(component, number);
            case Subject.Deployment(String id) -> deployment(id);
            case Subject.Version(String component, String number) -> version(component, number, environment.get());
            default -> throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", subject)
                    + "” should be COMPONENT#RUN, such as daylight-api#41, deployment NUMBER, or COMPONENT VERSION");
        };
    }

    private int deployment(String id) {
        JsonNode view = new DeploymentWatch(context, wantsJson()).until(api(), id, WatchCommand::pause);
        print(view, () -> {});
        return DeploymentWatch.good(view) ? 0 : 1;
    }

    /** Waits until the version is deployed into the environment, and follows its newest deployment there. */
    private int version(String component, String number, String environment) {
        Api api = api();
        while (true) {
            JsonNode view = api.get(Api.path("versions", component, number));
            Optional<String> deployment = in(view.path("deployments"), environment)
                    .map(each -> each.path("id").asString());
            if (deployment.isPresent()) {
                return deployment(deployment.get());
            }
            JsonNode stop = in(view.path("walk"), environment).orElseThrow(() -> new Failure(Failure.Kind.REFUSED,
                    component + " " + number + " does not go into " + environment + " by its walk, and nobody promoted "
                            + "it there; its walk: " + view.path("walk").valueStream()
                                    .map(each -> each.path("environment").asString())
                                    .collect(Collectors.joining(", "))));
            String why = stop.path("stays").asString("no deployment there has begun");
            if (!why.equals(told.put(environment, why)) && !wantsJson()) {
                context.out().println(component + " " + number + " waits before " + environment + ": " + why);
                context.out().flush();
            }
            pause();
        }
    }

    /** The last, which is the newest: deployments are listed in the order in which they were requested. */
    private static Optional<JsonNode> in(JsonNode entries, String environment) {
        return entries.valueStream().filter(each -> each.path("environment").asString().equals(environment))
                .reduce((before, after) -> after);
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

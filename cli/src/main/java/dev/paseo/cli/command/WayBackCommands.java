package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What is done about what is live: go back from it, deploy it again, bring hosts to it. */
final class WayBackCommands {

    private WayBackCommands() {}

    /** Says what has begun. */
    private static void told(ServiceCommand command, JsonNode deployment, String words) {
        String id = deployment.path("id").asString("");
        command.context.out()
                .println("Deployment " + id + ", " + words + " " + deployment.path("version").asString() + ", is "
                        + command.context.ink().state(deployment.path("status").asString())
                        + ". See it: paseo show deployment " + id);
    }

    @Command(name = "rollback",
            description = "Goes back to the last good version that was live there, or to a named one, and holds the "
                    + "place.",
            footer = {"",
                    "The last good version is neither blocked, undone nor itself rolled back from. The hold keeps "
                            + "the next automatic deployment",
                    "out until it is lifted: paseo hold COMPONENT --in ENVIRONMENT --lift.", "",
                    "Example:", "  paseo rollback daylight-api --in production --reason \"times an hour late\""})
    static final class Rollback extends PlaceCommand {
        @Option(names = "--to", paramLabel = "VERSION",
                description = "a version that was live there; default: the last good one")
        private Optional<String> to = Optional.empty();

        @Option(names = "--reason", required = true,
                description = "kept with the deployment, the hold and the audit trail")
        private String reason = "";

        @Option(names = "--emergency", description = "past unmet criteria; reviewed by somebody else within three days")
        private boolean emergency;

        Rollback(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("reason", reason).put("emergency", emergency);
            to.ifPresent(version -> request.put("to", version));
            JsonNode deployment = api.post(place("rollback"), request);
            return print(deployment,
                    () -> told(this, deployment, "the rollback of " + component + " in " + environment + " to"));
        }
    }

    @Command(name = "redeploy",
            description = "Deploys what is live again, with the variables and secrets as they are now, through the "
                    + "gate before.",
            footer = {"", "Example:", "  paseo redeploy daylight-api --in staging --comment \"new log level\""})
    static final class Redeploy extends PlaceCommand {
        @Option(names = "--comment", description = "kept with the request and in the audit trail")
        private Optional<String> comment = Optional.empty();

        @Option(names = "--emergency", paramLabel = "REASON",
                description = "past unmet criteria, hold and closed; reviewed by somebody else within three days")
        private Optional<String> emergency = Optional.empty();

        Redeploy(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object();
            comment.ifPresent(words -> request.put("comment", words));
            emergency.ifPresent(words -> request.put("emergency", words));
            JsonNode deployment = api.post(place("redeployment"), request);
            return print(deployment, () -> told(this, deployment, "again " + component));
        }
    }

    @Command(name = "repair",
            description = "Brings hosts to what is live there, exactly as it was deployed: those that differ or are "
                    + "unhealthy, or the named ones.",
            footer = {"", "Example:", "  paseo repair daylight-api --in staging"})
    static final class Repair extends PlaceCommand {
        @Option(names = "--host", description = "this one, although it may not differ; may be repeated")
        private List<String> hosts = List.of();

        Repair(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object();
            if (!hosts.isEmpty()) {
                hosts.forEach(request.putArray("hosts")::add);
            }
            JsonNode repaired = api.post(place("repair"), request);
            return print(repaired, () -> context.out().println("Brought to what is live in " + environment + ": "
                    + String.join(", ", repaired.path("hosts").valueStream().map(JsonNode::asString).toList()) + "."));
        }
    }

    @Command(name = "record",
            description = "Writes down what is live already, on the day that Paseo is brought in. Nothing is done "
                    + "on the hosts.",
            footer = {"", "Example:",
                    "  paseo record hut-planner 2.3.0 --in production --reason \"installed by hand in March\""})
    static final class Record extends PlaceCommand {
        @Parameters(index = "1", paramLabel = "VERSION")
        private String version = "";

        @Option(names = "--reason", required = true, description = "kept in the audit trail")
        private String reason = "";

        Record(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode deployment = api.post(place("record"), api.object().put("version", version).put("reason", reason));
            return print(deployment, () -> told(this, deployment, "recorded:"));
        }
    }

    @Command(name = "continue",
            description = "Continues a deployment that is paused at a step of its canary; with --no, undoes it.",
            footer = {"", "Example:", "  paseo continue deployment 12"})
    static final class Continue extends ServiceCommand {
        @Parameters(arity = "1..2", paramLabel = "deployment NUMBER", hideParamSyntax = true)
        private List<String> subject = List.of();

        @Option(names = "--no", description = "it does not go on: the traffic goes back where it was")
        private boolean no;

        Continue(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode after = api.post(Api.path("deployments", Subject.deployment(subject).id(), "answer"),
                    api.object().put("yes", !no));
            return print(after, () -> context.out().println(
                    String.join(" ", subject) + " is " + context.ink().state(after.path("status").asString()) + "."));
        }
    }

    @Command(name = "review", description = "Looks at an emergency afterwards; not by whoever asked for it.",
            footer = {"", "Example:",
                    "  paseo review deployment 12 --comment \"It was right: parties were out on the ridge.\""})
    static final class Review extends ServiceCommand {
        @Parameters(arity = "1..2", paramLabel = "deployment NUMBER", hideParamSyntax = true)
        private List<String> subject = List.of();

        @Option(names = "--comment", required = true, description = "what was found")
        private String comment = "";

        Review(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode after = api.post(Api.path("deployments", Subject.deployment(subject).id(), "review"),
                    api.object().put("comment", comment));
            return print(after, () -> context.out().println(String.join(" ", subject) + " is reviewed."));
        }
    }
}

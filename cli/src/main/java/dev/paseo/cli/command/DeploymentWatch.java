package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import tools.jackson.databind.JsonNode;

/** Follows a deployment: its status and its hosts, a line for each change, until it is live or has ended. */
final class DeploymentWatch {

    private static final Set<String> ENDED = Set.of("live", "replaced", "undone", "removed", "stopped", "failed",
            "rejected", "expired", "withdrawn", "overtaken");

    private final Context context;
    private final boolean quiet;
    private final Map<String, String> told = new HashMap<>();

    DeploymentWatch(Context context, boolean quiet) {
        this.context = context;
        this.quiet = quiet;
    }

    /** The deployment as it ended; between two looks {@code pause} is run. */
    JsonNode until(Api api, String id, Runnable pause) {
        while (true) {
            JsonNode view = api.get(Api.path("deployments", id));
            String status = view.path("deployment").path("status").asString();
            tell(id, "deployment " + id, status, view.path("deployment").path("reason").asString(""));
            view.path("hosts").forEach(host -> tell("host " + host.path("host").asString(),
                    host.path("host").asString(), host.path("phase").asString(), host.path("reason").asString("")));
            if (ENDED.contains(status)) {
                return view;
            }
            pause.run();
        }
    }

    private void tell(String key, String what, String state, String reason) {
        if (!Objects.equals(told.put(key, state), state) && !quiet && !state.equals("ahead")) {
            context.out().println(what + " " + context.ink().state(state) + (reason.isEmpty() ? "" : ": " + reason));
            context.out().flush();
        }
    }

    static boolean good(JsonNode view) {
        return Set.of("live", "replaced").contains(view.path("deployment").path("status").asString());
    }
}

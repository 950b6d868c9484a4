package dev.paseo.service.environment;

import dev.paseo.service.component.PipelineChecks;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Tells the checks of pipeline files what each environment follows. */
@Component
class FollowedEnvironments implements PipelineChecks.Followed {

    private final Environments environments;

    FollowedEnvironments(Environments environments) {
        this.environments = environments;
    }

    @Override
    public Map<String, List<String>> environments() {
        Map<String, List<String>> followed = new LinkedHashMap<>();
        environments.all().forEach(known -> followed.put(known.name(), known.rules().followed()));
        return followed;
    }
}

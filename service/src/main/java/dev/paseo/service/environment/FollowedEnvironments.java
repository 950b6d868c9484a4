package dev.paseo.service.environment;

import dev.paseo.core.gate.Criterion;
import dev.paseo.language.check.Surroundings;
import dev.paseo.service.component.PipelineChecks;
import java.util.LinkedHashMap;
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
    public Map<String, Surroundings.Follows> environments() {
        Map<String, Surroundings.Follows> followed = new LinkedHashMap<>();
        environments.all()
                .forEach(known -> followed.put(known.name(), new Surroundings.Follows(known.rules().followed(),
                        known.rules().follows().filter(Criterion.Follows::any).isPresent())));
        return followed;
    }
}

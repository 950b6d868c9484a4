package dev.paseo.service.deployment;

import dev.paseo.service.database.Json;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.version.Versions;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Takes a version on along its route: requests what its next environments take by themselves. */
@Component
class WalkOn implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(WalkOn.class);

    private final Versions versions;
    private final Environments environments;
    private final Requests requests;
    private final DeploymentMapper mapper;
    private final Json json;

    WalkOn(Versions versions, Environments environments, Requests requests, DeploymentMapper mapper, Json json) {
        this.versions = versions;
        this.environments = environments;
        this.requests = requests;
        this.mapper = mapper;
        this.json = json;
    }

    @Override
    public String kind() {
        return Versions.WALK;
    }

    @Override
    public void perform(String body) {
        Versions.WalkOn walk = json.read(body, Versions.WalkOn.class);
        Versions.Sealed version = versions.byId(walk.version());
        Set<String> entered = new HashSet<>();
        mapper.ofVersion(version.id()).forEach(row -> entered.add(environments.placeById(row.placeId()).environment()));
        List<String> next = version.route().entersNow(environments.passed(version.id()), entered);
        List<String> all = version.route().environments();
        int last = versions.upTo(version.id()).map(all::indexOf).filter(at -> at >= 0).orElse(all.size());
        for (String environment : next) {
            Optional<Environments.Place> place = environments.find(version.component(), environment);
            if (all.indexOf(environment) > last) {
                LOG.debug("{} {} was to walk no further than {}", version.component(), version.number(), all.get(last));
            } else if (place.isPresent()) {
                requests.byWalk(version, place.get(), walk.from());
            } else {
                LOG.warn("{} {} cannot walk into {}: it has no place there", version.component(), version.number(), environment);
            }
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("a walk stays where it is; a person can promote the version: {} ({})", body, error);
    }
}

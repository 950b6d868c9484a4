package dev.paseo.service.deployment;

import dev.paseo.service.database.Json;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.passage.WalkStays;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.request.WalkRequests;
import dev.paseo.service.version.Versions;
import java.util.HashSet;
import java.util.List;
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
    private final WalkRequests requests;
    private final Deployments deployments;
    private final Json json;
    private final WalkStays stays;

    WalkOn(Versions versions, Environments environments, WalkRequests requests, Deployments deployments, Json json,
            WalkStays stays) {
        this.stays = stays;
        this.versions = versions;
        this.environments = environments;
        this.requests = requests;
        this.deployments = deployments;
        this.json = json;
    }

    @Override
    public String kind() {
        return Versions.WALK;
    }

    @Override
    public void perform(String body) {
        Versions.WalkOn walk = json.read(body, Versions.WalkOn.class);
        Versions.Version version = versions.byId(walk.version());
        Set<String> entered = new HashSet<>();
        deployments.ofVersion(version.id())
                .forEach(row -> entered.add(row.environment()));
        List<String> next = version.route().entersNow(environments.passed(version.id()), entered);
        List<String> all = version.route().environments();
        int last = versions.upTo(version.id()).map(all::indexOf).filter(at -> at >= 0).orElse(all.size());
        for (String environment : next) {
            if (all.indexOf(environment) > last) {
                LOG.debug("{} {} was to walk no further than {}", version.component(), version.number(), all.get(last));
            } else {
                into(version, environment, walk.from());
            }
        }
    }

    /** A walk that stayed is tried again, unless something brought the version there meanwhile. */
    void again(long id, String environment, String from) {
        Versions.Version version = versions.byId(id);
        boolean there = deployments.ofVersion(id).stream()
                .anyMatch(row -> row.environment().equals(environment));
        if (there) {
            stays.goesOn(version, environment);
        } else {
            into(version, environment, from);
        }
    }

    private void into(Versions.Version version, String environment, String from) {
        environments.find(version.component(), environment).ifPresentOrElse(
                place -> requests.into(place, version, from),
                () -> stays.stays(version, environment, from,
                        environments.whyNoPlace(version.component(), environment).orElseThrow()));
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("a walk stays where it is; a person can promote the version: {} ({})", body, error);
    }
}

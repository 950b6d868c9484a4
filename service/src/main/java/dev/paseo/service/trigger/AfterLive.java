package dev.paseo.service.trigger;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.Event;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import java.util.OptionalLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** A version that is live somewhere for the first time starts what waits for that. */
@Component
class AfterLive implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(AfterLive.class);

    private final Versions versions;
    private final Components components;
    private final Starting starting;
    private final Json json;

    AfterLive(Versions versions, Components components, Starting starting, Json json) {
        this.versions = versions;
        this.components = components;
        this.starting = starting;
        this.json = json;
    }

    @Override
    public String kind() {
        return Versions.LIVE;
    }

    @Override
    public void perform(String body) {
        Versions.FirstLive live = json.read(body, Versions.FirstLive.class);
        Versions.Version version = versions.byId(live.version());
        RegisteredComponent component = components.byId(version.componentId());
        String what = version.component() + " " + version.number();
        starting.happened(new Happened(new Event.WentLive(component.name(), version.number(), live.environment()),
                component,
                Optional.of(version.number() + " in " + live.environment()), what + " live in " + live.environment(),
                new Cause.Live(component.name(), version.number(), live.environment(), live.deployment()),
                OptionalLong.of(live.cause()), what,
                Optional.of(version.branch()), version.commit(),
                Optional.of(new RunStarts.Upstream(component.id(), version.id()))));
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("what going live starts was given up: {} ({})", body, error);
    }
}

package dev.paseo.service.trigger;

import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import java.util.OptionalLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** A version that arrived starts a run where its component's file says so, and walks by itself where it does not. */
@Component
class AfterArrival implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(AfterArrival.class);

    private final Versions versions;
    private final Components components;
    private final Causes causes;
    private final Starting starting;

    AfterArrival(Versions versions, Components components, Causes causes, Starting starting) {
        this.versions = versions;
        this.components = components;
        this.causes = causes;
        this.starting = starting;
    }

    @Override
    public String kind() {
        return Versions.ARRIVED;
    }

    @Override
    public void perform(String body) {
        Versions.Version version = versions.byId(Long.parseLong(body));
        RegisteredComponent component = components.byId(version.componentId());
        starting.happened(new Happened(new Event.Arrived(component.name(), version.number()), component,
                Optional.of(version.number()),
                component.name() + " " + version.number() + " arrived " + version.origin().orElse(""),
                causes.cause(version.cause()), OptionalLong.of(version.cause()),
                component.name() + " " + version.number(), Optional.of(version.branch()), Optional.empty(),
                Optional.of(new RunStarts.Upstream(component.id(), version.id()))));
        if (!startsRuns(component)) {
            versions.walkBegins(version.id());
        }
    }

    private boolean startsRuns(RegisteredComponent component) {
        return Optional.ofNullable(components.heads(component.id()).get(component.mainBranch()))
                .flatMap(head -> components.readFile(component, head).file())
                .map(file -> file.starts().stream().anyMatch(Trigger.Arrival.class::isInstance)).orElse(false);
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("what the arrival of version {} leads to was given up: {}", body, error);
    }
}

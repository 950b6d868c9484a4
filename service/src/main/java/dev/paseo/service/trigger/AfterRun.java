package dev.paseo.service.trigger;

import dev.paseo.core.text.Word;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Trigger.RunEnd;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.run.RunStarts;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Runs that have ended start those downstream. */
@Component
class AfterRun implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(AfterRun.class);

    private final EventMapper mapper;
    private final Components components;
    private final Starting starting;

    AfterRun(EventMapper mapper, Components components, Starting starting) {
        this.mapper = mapper;
        this.components = components;
        this.starting = starting;
    }

    @Override
    public String kind() {
        return RunStarts.ENDED;
    }

    @Override
    public void perform(String body) {
        EventMapper.EndedRow run = mapper.ended(Long.parseLong(body));
        Word.read(RunEnd.class, Word.of(run.status())).ifPresent(how -> ended(run, how));
    }

    private void ended(EventMapper.EndedRow run, RunEnd end) {
        RegisteredComponent component = components.byId(run.componentId());
        String name = component.name() + "#" + run.number();
        Event.RunEnded event = new Event.RunEnded(component.name(), run.number(), run.branch(),
                run.branch().equals(component.mainBranch()), end, component.repository());
        starting.happened(new Happened(event, component,
                Optional.of("#" + run.number() + " revision " + run.revision()),
                name + " ended " + end.name().toLowerCase(Locale.ROOT), new Cause.Run(component.name(), run.number()),
                OptionalLong.of(run.causeId()),
                name, Optional.of(run.branch()), Optional.of(run.commitId()).filter(commit -> !commit.isEmpty()),
                Optional.ofNullable(run.versionId()).map(version -> new RunStarts.Upstream(component.id(), version))));
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("what run {} starts downstream was given up: {}", body, error);
    }
}

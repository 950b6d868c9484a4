package dev.paseo.service.trigger;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.Event;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.start.StartTriggers;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import java.util.OptionalLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Clocks that fire. A time that was missed because no service was there is made up for once where it is less than an
 * hour ago; an older one is told as missed.
 */
@Component
class Clocks {

    private static final Logger LOG = LoggerFactory.getLogger(Clocks.class);
    private static final DateTimeFormatter SAID = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");

    private final StartTriggers triggers;
    private final Components components;
    private final Starting starting;
    private final ServiceClock clock;

    Clocks(StartTriggers triggers, Components components, Starting starting, ServiceClock clock) {
        this.triggers = triggers;
        this.components = components;
        this.starting = starting;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 1000)
    void fire() {
        for (StartTriggers.Due due : triggers.due()) {
            try {
                fire(due);
            } catch (RuntimeException failed) {
                LOG.warn("the clock {} of component {} could not start anything, and strikes again: {}", due.cron(),
                        due.component(), failed.toString());
            }
        }
    }

    private void fire(StartTriggers.Due due) {
        RegisteredComponent component = components.byId(due.component());
        Event.Fired fired = Event.Fired.noticed(component.name(), due.cron(), due.zone(), due.at(), clock.now());
        String time = SAID.withZone(ZoneId.of(due.zone())).format(due.at());
        starting.happened(new Happened(fired, component, Optional.empty(),
                "clock at " + time + " " + due.zone() + (fired.missed() ? ", missed" : ""),
                new Cause.Clock(component.name(), due.cron(), due.zone(), due.at()),
                OptionalLong.empty(), "clock", Optional.of(component.mainBranch()), Optional.empty(), Optional.empty()),
                () -> triggers.fire(due));
    }
}

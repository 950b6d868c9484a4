package dev.paseo.service.trigger;

import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.Registered;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks at all repositories now and then, for the pushes whose hook did not arrive. */
@Component
class HeadPoll {

    private static final Logger LOG = LoggerFactory.getLogger(HeadPoll.class);

    private final Components components;
    private final Pushes pushes;

    HeadPoll(Components components, Pushes pushes) {
        this.components = components;
        this.pushes = pushes;
    }

    @Scheduled(fixedDelayString = "${paseo.poll:30s}", initialDelayString = "${paseo.poll:30s}")
    void poll() {
        for (Registered component : components.all()) {
            if (component.repository().isPresent()) {
                poll(component);
            }
        }
    }

    private void poll(Registered component) {
        try {
            pushes.look(component, Optional.empty());
        } catch (RuntimeException away) {
            LOG.warn("the repository of {} cannot be looked at: {}", component.name(), away.getMessage());
        }
    }
}

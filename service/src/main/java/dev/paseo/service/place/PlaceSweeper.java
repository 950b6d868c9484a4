package dev.paseo.service.place;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.clock.ServiceClock;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks at places whose time has come, so that a lost timer strands nothing. */
@Component
class PlaceSweeper {

    private static final Logger LOG = LoggerFactory.getLogger(PlaceSweeper.class);

    private final DeploymentMapper mapper;
    private final Places places;
    private final PlaceGates gates;
    private final ServiceClock clock;

    PlaceSweeper(DeploymentMapper mapper, Places places, PlaceGates gates, ServiceClock clock) {
        this.mapper = mapper;
        this.places = places;
        this.gates = gates;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 1000)
    void sweep() {
        try {
            mapper.due(clock.now()).forEach(place -> {
                gates.learn(place);
                places.change(place, now -> Optional.of(new PlaceEvent.TimePassed()));
            });
        } catch (RuntimeException failed) {
            LOG.warn("gates are not looked after for the moment: {}", failed.toString());
        }
    }
}

package dev.paseo.service.passage;

import dev.paseo.service.clock.ServiceClock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks at passages whose time has come, so that a lost timer strands nothing. */
@Component
class PassageSweeper {

    private static final Logger LOG = LoggerFactory.getLogger(PassageSweeper.class);

    private final PassageMapper mapper;
    private final Passages passages;
    private final ServiceClock clock;

    PassageSweeper(PassageMapper mapper, Passages passages, ServiceClock clock) {
        this.mapper = mapper;
        this.passages = passages;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 1000)
    void sweep() {
        try {
            mapper.due(clock.now()).forEach(passages::look);
        } catch (RuntimeException failed) {
            LOG.warn("gates onward are not looked after for the moment: {}", failed.toString());
        }
    }
}

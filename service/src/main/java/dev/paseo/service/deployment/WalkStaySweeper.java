package dev.paseo.service.deployment;

import dev.paseo.service.passage.WalkStays;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Tries walks that stay again. */
@Component
class WalkStaySweeper {

    private static final Logger LOG = LoggerFactory.getLogger(WalkStaySweeper.class);

    private final WalkStays stays;
    private final WalkOn walk;

    WalkStaySweeper(WalkStays stays, WalkOn walk) {
        this.stays = stays;
        this.walk = walk;
    }

    @Scheduled(fixedDelay = 2000)
    void sweep() {
        try {
            stays.due().forEach(stay -> walk.again(stay.version(), stay.environment(), stay.from()));
        } catch (RuntimeException failed) {
            LOG.warn("walks that stay are not tried for the moment: {}", failed.toString());
        }
    }
}

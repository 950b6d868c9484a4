package dev.paseo.service.asking;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Finds what was asked and has been done since. */
@Component
class AskSweeper {

    private static final Logger LOG = LoggerFactory.getLogger(AskSweeper.class);

    private final Asks asks;

    AskSweeper(Asks asks) {
        this.asks = asks;
    }

    @Scheduled(fixedDelay = 2000)
    void sweep() {
        try {
            asks.endWhatIsDone();
        } catch (RuntimeException failed) {
            LOG.warn("what was asked is not looked after for the moment: {}", failed.toString());
        }
    }
}

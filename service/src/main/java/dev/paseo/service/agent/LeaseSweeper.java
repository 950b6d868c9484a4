package dev.paseo.service.agent;

import dev.paseo.service.engine.Presence;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Gives up what agents no longer answer for. Leases do not run while no replica was at work. */
@Component
class LeaseSweeper {

    private static final Logger LOG = LoggerFactory.getLogger(LeaseSweeper.class);

    private final WorkBoard board;
    private final Owners owners;
    private final Presence presence;

    LeaseSweeper(WorkBoard board, Owners owners, Presence presence) {
        this.board = board;
        this.owners = owners;
        this.presence = presence;
    }

    @Scheduled(fixedDelay = 1000)
    void sweep() {
        try {
            Duration away = presence.alive();
            if (away.isPositive()) {
                LOG.warn("no service was at work for {} s: all leases last that much longer", away.toSeconds());
                board.extendAll(away);
            }
            board.expired().forEach(work -> {
                LOG.warn("work {} is given up: its lease ran out", work.id());
                board.giveUp(work, owners);
            });
            board.notTaken().forEach(work -> board.notTaken(work, owners));
        } catch (RuntimeException failed) {
            LOG.warn("leases are not looked after for the moment: {}", failed.toString());
        }
    }
}

package dev.paseo.service.witness;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.engine.Nudge;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Hands heads of the trail on: to receivers, and on a thread of its own to a file, whose machine may not answer. */
@Component
class Witnesses {

    private static final Logger LOG = LoggerFactory.getLogger(Witnesses.class);

    private final HeadTelling telling;
    private final HeadFile file;
    private final WitnessSettings settings;
    private final ServiceClock clock;
    private final Nudge nudge;

    Witnesses(HeadTelling telling, HeadFile file, WitnessSettings settings, ServiceClock clock, Nudge nudge) {
        this.telling = telling;
        this.file = file;
        this.settings = settings;
        this.clock = clock;
        this.nudge = nudge;
    }

    /**
     * Who else keeps heads of the trail.
     *
     * @param every     how often a new one is handed on at most, as ISO 8601 has lengths of time
     * @param told      the newest that was; absent: none was
     * @param receivers the names of those that are told of them
     * @param file      where they are written too; absent: nowhere
     */
    record WitnessesView(Duration every, Optional<HeadFile.HandedView> told, List<String> receivers,
            Optional<HeadFile.HeadFileView> file) {}

    WitnessesView view() {
        return new WitnessesView(settings.every(), telling.newest(), telling.receivers(), file.view());
    }

    @EventListener
    void start(ApplicationReadyEvent ready) {
        Thread.ofVirtual().name("witnesses")
                .start(() -> work("witnesses", () -> telling.tell(clock.now(), settings.every())));
        Thread.ofPlatform().daemon().name("head-file").start(() -> work("head-file", file::write));
    }

    private void work(String name, Runnable handOn) {
        try (Nudge.Listening listening = nudge.listen(name)) {
            while (!nudge.isClosing()) {
                try {
                    handOn.run();
                } catch (RuntimeException failed) {
                    LOG.warn("heads of the trail are not handed on at the moment: {}", failed.toString());
                }
                listening.await(1000);
            }
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        }
    }
}

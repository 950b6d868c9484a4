package dev.paseo.service.trigger;

import dev.paseo.core.text.Shortened;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.component.Components;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.ThreadLocalRandom;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Lists every repository now and then, for the pushes whose hook did not arrive: one listing each, however many
 * components live in it, spread over time, and less and less often where it does not answer. Only where the listing has
 * changed is anything fetched.
 */
@Component
class Polls {

    private static final Logger LOG = LoggerFactory.getLogger(Polls.class);
    private static final int AT_ONCE = 4;
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(30);

    private final PollMapper mapper;
    private final Components components;
    private final Pushes pushes;
    private final ServiceClock clock;
    private final Duration every;
    private final Semaphore room = new Semaphore(AT_ONCE);

    Polls(PollMapper mapper, Components components, Pushes pushes, ServiceClock clock,
            @Value("${paseo.poll:30s}") Duration every) {
        this.mapper = mapper;
        this.components = components;
        this.pushes = pushes;
        this.clock = clock;
        this.every = every;
    }

    /** A repository that is new comes at a moment of its own. */
    @Scheduled(fixedDelay = 5000)
    void enrol() {
        Instant now = clock.now();
        for (String repository : mapper.unknown()) {
            mapper.add(repository, now.plusMillis(ThreadLocalRandom.current().nextLong(every.toMillis()) + 1));
        }
    }

    @Scheduled(fixedDelay = 250)
    void poll() {
        Instant now = clock.now();
        for (PollMapper.PollRow due : mapper.due(now)) {
            if (!room.tryAcquire()) {
                return;
            }
            if (mapper.claim(due.repository(), due.nextAt(),
                    now.plus(every.compareTo(Duration.ofMinutes(3)) > 0 ? every : Duration.ofMinutes(3))) == 0) {
                room.release();
            } else {
                Thread.ofVirtual().name("poll").start(() -> {
                    try {
                        poll(due);
                    } catch (RuntimeException closing) {
                        LOG.warn("what came of the repository {} was not written down: {}", due.repository(),
                                closing.toString());
                    } finally {
                        room.release();
                    }
                });
            }
        }
    }

    private void poll(PollMapper.PollRow due) {
        List<Registered> concerned = components.ofRepository(due.repository());
        if (concerned.isEmpty()) {
            mapper.forget(due.repository());
            return;
        }
        try {
            String listing = Tokens.hash(components.mirror(concerned.getFirst()).listing());
            if (!listing.equals(due.listing())) {
                List<Pushes.Unread> unread = pushes.look(due.repository(), Pusher.UNTOLD).unread();
                if (!unread.isEmpty()) {
                    away(due, unread.stream().map(Pushes.Unread::sentence).collect(Collectors.joining("; ")));
                    return;
                }
            }
            mapper.looked(due.repository(), clock.now().plus(every), listing, clock.now());
        } catch (RuntimeException away) {
            away(due, String.valueOf(away.getMessage()));
        }
    }

    private void away(PollMapper.PollRow due, String why) {
        Duration pause = every.multipliedBy(1L << Math.min(due.failures() + 1, 10));
        Instant next = clock.now().plus(pause.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : pause);
        mapper.failed(due.repository(), next, Shortened.to(why, 1000));
        LOG.warn("the repository {} cannot be looked at, again at {}: {}", due.repository(), next, why);
    }

    /** A hook could not be followed: looked at again soon. */
    void soon(String repository, String why) {
        mapper.add(repository, clock.now());
        mapper.failed(repository, clock.now().plusSeconds(2), Shortened.to(why, 1000));
    }

    /** How the repository was last found. */
    Optional<PollMapper.PollRow> of(String repository) {
        return mapper.of(repository);
    }
}

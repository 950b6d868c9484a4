package dev.paseo.service.trigger;

import dev.paseo.core.text.Sha256;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.engine.DueWork;
import dev.paseo.service.component.Components;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
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
public class Polls implements DueWork.Ways<PollMapper.PollRow> {

    private static final Logger LOG = LoggerFactory.getLogger(Polls.class);
    private static final int AT_ONCE = 4;
    private static final Duration CLAIM = Duration.ofMinutes(3);
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(30);

    private final PollMapper mapper;
    private final Components components;
    private final Pushes pushes;
    private final ServiceClock clock;
    private final Duration every;
    private final DueWork<PollMapper.PollRow> work = new DueWork<>("poll", AT_ONCE, this);

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
        work.take(clock.now());
    }

    @Override
    public List<PollMapper.PollRow> due(Instant now) {
        return mapper.due(now);
    }

    @Override
    public boolean claim(PollMapper.PollRow due, Instant now) {
        Duration claim = every.compareTo(CLAIM) > 0 ? every : CLAIM;
        return mapper.claim(due.repository(), due.nextAt(), now.plus(claim)) == 1;
    }

    @Override
    public void perform(PollMapper.PollRow due) {
        List<RegisteredComponent> concerned = components.ofRepository(due.repository());
        if (concerned.isEmpty()) {
            mapper.forget(due.repository());
            return;
        }
        try {
            String listing = Sha256.hex(components.mirror(concerned.getFirst()).listing());
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
        Instant next = clock.now().plus(DueWork.pause(every, due.failures() + 1, LONGEST_PAUSE));
        mapper.failed(due.repository(), next, Shortened.to(why, 1000));
        LOG.warn("the repository {} cannot be looked at, again at {}: {}", due.repository(), next, why);
    }

    /** A hook could not be followed: looked at again soon. */
    public void soon(String repository, String why) {
        mapper.add(repository, clock.now());
        mapper.failed(repository, clock.now().plusSeconds(2), Shortened.to(why, 1000));
    }

    /**
     * How a repository was last found.
     *
     * @param failures how many times in a row it did not answer
     */
    public record Found(Optional<Instant> lookedAt, int failures, Optional<String> error, Instant nextAt) {}

    /** How the repository was last found, where it was looked at. */
    public Optional<Found> of(String repository) {
        return mapper.of(repository).map(row -> new Found(Optional.ofNullable(row.lookedAt()), row.failures(),
                Optional.ofNullable(row.lastError()), row.nextAt()));
    }
}

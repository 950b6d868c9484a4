package dev.paseo.service.announcement;

import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.engine.DueWork;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.signature.SignedPost;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Delivers what was written down: tried again with growing pauses for a day, then given up and told so. Messages may
 * come twice and in any order; their id stays the same.
 */
@Component
class Outgoing implements DueWork.Ways<AnnouncementMapper.DueRow> {

    static final String CHANNEL = "outgoing";
    private static final Logger LOG = LoggerFactory.getLogger(Outgoing.class);
    private static final int AT_ONCE = 256;
    private static final Duration CLAIM = Duration.ofSeconds(30);
    private static final Duration DAY = Duration.ofDays(1);
    private static final List<Duration> PAUSES = List.of(Duration.ofSeconds(2), Duration.ofSeconds(10),
            Duration.ofSeconds(30), Duration.ofMinutes(2),
            Duration.ofMinutes(10), Duration.ofMinutes(30), Duration.ofHours(1));

    private final DueWork<AnnouncementMapper.DueRow> work = new DueWork<>("outgoing", AT_ONCE, this);
    private final AnnouncementMapper mapper;
    private final Secrets secrets;
    private final ServiceClock clock;
    private final Nudge nudge;
    private final SignedPost post;

    Outgoing(AnnouncementMapper mapper, Secrets secrets, ServiceClock clock, Nudge nudge, SignedPost post) {
        this.mapper = mapper;
        this.secrets = secrets;
        this.clock = clock;
        this.nudge = nudge;
        this.post = post;
    }

    static String secretName(long receiver) {
        return "PASEO_RECEIVER_" + receiver;
    }

    @EventListener
    void start(ApplicationReadyEvent ready) {
        Thread.ofVirtual().name("outgoing").start(this::work);
    }

    private void work() {
        try (Nudge.Listening listening = nudge.listen(CHANNEL)) {
            while (!nudge.isClosing()) {
                try {
                    work.take(clock.now());
                } catch (RuntimeException failed) {
                    LOG.warn("events are not told at the moment: {}", failed.toString());
                }
                listening.await(1000);
            }
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public List<AnnouncementMapper.DueRow> due(Instant now) {
        return mapper.due(now);
    }

    @Override
    public boolean claim(AnnouncementMapper.DueRow due, Instant now) {
        return mapper.claim(due.id(), due.dueAt(), now.plus(CLAIM)) == 1;
    }

    @Override
    public void perform(AnnouncementMapper.DueRow due) {
        Instant began = clock.now();
        @Nullable
        Integer status = null;
        @Nullable
        String error = null;
        try {
            status = send(due);
        } catch (IOException | Refusal failed) {
            error = failed.getMessage() == null ? failed.getClass().getSimpleName() : failed.getMessage();
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            return;
        }
        Instant now = clock.now();
        mapper.attempted(due.id(), due.tries() + 1, began, (int) Duration.between(began, now).toMillis(), status,
                error == null ? null : cut(error));
        if (status != null && status / 100 == 2) {
            mapper.delivered(due.id(), now);
            return;
        }
        Instant next = now.plus(PAUSES.get(Math.min(due.tries(), PAUSES.size() - 1)));
        if (next.isAfter(due.createdAt().plus(DAY)) || status != null && status == 410) {
            mapper.gaveUp(due.id(), now);
            LOG.warn("gave up on message {} to {}", due.message(), due.address());
        } else {
            mapper.again(due.id(), next);
        }
    }

    private int send(AnnouncementMapper.DueRow due) throws IOException, InterruptedException {
        String secret = secrets.value(secretName(due.receiverId()), 0)
                .orElseThrow(() -> new IOException("the receiver has no secret"));
        return post.send(new SignedPost.Message(due.address(), "application/cloudevents+json; charset=utf-8",
                due.message(), secret, due.body().getBytes(StandardCharsets.UTF_8)));
    }

    private static String cut(String text) {
        return Shortened.to(text, 500);
    }
}

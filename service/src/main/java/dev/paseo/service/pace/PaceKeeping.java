package dev.paseo.service.pace;

import dev.paseo.core.pace.TimePart;
import dev.paseo.core.pace.LeadTime;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.pace.PaceMapper.MadeRow;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Keeps the lead time of each promotion as it goes live, and notes on it when it was gone back from. */
@Component
class PaceKeeping implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(PaceKeeping.class);

    private final PaceMapper mapper;

    PaceKeeping(PaceMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return Versions.PACE;
    }

    @Override
    public void perform(String body) {
        mapper.made(Long.parseLong(body)).ifPresent(made -> {
            if (made.kind().equals("promotion")) {
                keep(made);
            } else if (made.kind().equals("rollback") && made.replaces() != null) {
                mapper.badFor(made.replaces()).ifPresent(seconds -> mapper.bad(made.replaces(), seconds));
            }
        });
    }

    private void keep(MadeRow made) {
        List<LeadTime.Span> work = made.run() == null ? List.of() : mapper.work(made.run()).stream()
                .map(row -> new LeadTime.Span(row.takenAt(), row.endedAt())).toList();
        Instant began = Objects.requireNonNullElse(made.runAsked(), made.sealed());
        Map<TimePart, Duration> parts = new LeadTime(began, Optional.ofNullable(made.runBegan()), work, made.sealed(),
                made.requested(), Optional.ofNullable(made.decided()),
                Objects.requireNonNullElse(made.started(), made.requested()), made.live()).parts();
        mapper.keep(made, seconds(parts, TimePart.TURN), seconds(parts, TimePart.AGENTS),
                seconds(parts, TimePart.BUILDING),
                seconds(parts, TimePart.BEFORE), seconds(parts, TimePart.PEOPLE), seconds(parts, TimePart.TIME),
                seconds(parts, TimePart.DEPLOYING), mapper.badFor(made.deployment()).orElse(null));
    }

    private static long seconds(Map<TimePart, Duration> parts, TimePart part) {
        return Math.round(parts.get(part).toMillis() / 1000.0);
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("the pace of deployment {} is not counted: {}", body, error);
    }
}

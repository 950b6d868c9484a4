package dev.paseo.service.pace;

import dev.paseo.core.pace.Part;
import dev.paseo.core.pace.Way;
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

/** Keeps the way of each promotion as it goes live, and notes on it when it was gone back from. */
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
        List<Way.Span> work = made.run() == null ? List.of() : mapper.work(made.run()).stream()
                .map(row -> new Way.Span(row.takenAt(), row.endedAt())).toList();
        Instant began = Objects.requireNonNullElse(made.runAsked(), made.sealed());
        Map<Part, Duration> parts = new Way(began, Optional.ofNullable(made.runBegan()), work, made.sealed(),
                made.requested(), Optional.ofNullable(made.decided()),
                Objects.requireNonNullElse(made.started(), made.requested()), made.live()).parts();
        mapper.keep(made, seconds(parts, Part.TURN), seconds(parts, Part.AGENTS), seconds(parts, Part.BUILDING),
                seconds(parts, Part.BEFORE), seconds(parts, Part.PEOPLE), seconds(parts, Part.TIME),
                seconds(parts, Part.DEPLOYING), mapper.badFor(made.deployment()).orElse(null));
    }

    private static long seconds(Map<Part, Duration> parts, Part part) {
        return Math.round(parts.get(part).toMillis() / 1000.0);
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("the pace of deployment {} is not counted: {}", body, error);
    }
}

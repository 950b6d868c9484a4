package dev.paseo.service.pace;

import dev.paseo.core.pace.TimePart;
import dev.paseo.core.pace.LeadTime;
import dev.paseo.core.pace.Span;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.pace.PaceMapper.MadeRow;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Keeps the lead time of each promotion as it goes live, and notes on it when it was gone back from. */
@Component
class PaceKeeping implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(PaceKeeping.class);

    private final PaceMapper mapper;
    private final InTheWay inTheWay;

    PaceKeeping(PaceMapper mapper, InTheWay inTheWay) {
        this.mapper = mapper;
        this.inTheWay = inTheWay;
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
        List<Span> work = made.run() == null ? List.of() : mapper.work(made.run()).stream()
                .map(row -> new Span(row.takenAt(), row.endedAt())).toList();
        LeadTime time = new LeadTime(Optional.ofNullable(made.committed()),
                Objects.requireNonNullElse(made.runAsked(), made.sealed()), Optional.ofNullable(made.runBegan()), work,
                made.sealed(), made.requested(), Optional.ofNullable(made.decided()), inTheWay.of(made),
                Objects.requireNonNullElse(made.started(), made.requested()), made.live());
        Map<TimePart, Duration> parts = time.parts();
        mapper.keep(made, Arrays.stream(TimePart.values()).mapToLong(part -> seconds(parts.get(part))).toArray(),
                mapper.badFor(made.deployment()).orElse(null));
        mapper.forget(made.deployment());
        time.waitedFor(inTheWay.wanted(made), said(made.deployment()), Set.copyOf(mapper.groups()))
                .forEach((asked, length) -> mapper.waited(made, asked, seconds(length)));
    }

    private List<LeadTime.Yes> said(long deployment) {
        return mapper.said(deployment).stream().map(row -> new LeadTime.Yes(row.by(),
                row.inGroup() == null ? Set.of(row.by()) : Set.of(row.by(), row.inGroup()), row.at())).toList();
    }

    private static long seconds(Duration length) {
        return Math.round(length.toMillis() / 1000.0);
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("the pace of deployment {} is not counted: {}", body, error);
    }
}

package dev.paseo.service.history;

import dev.paseo.core.history.Differences;
import dev.paseo.core.history.Differences.At;
import dev.paseo.core.history.Differences.LiveThen;
import dev.paseo.service.history.HistoryController.OnHostThenView;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What was live at past moments. */
@Component
class Moments {

    private static final int HOSTS = 500;

    private final HistoryMapper mapper;

    Moments(HistoryMapper mapper) {
        this.mapper = mapper;
    }

    private Map<At, LiveThen> live(Instant moment) {
        return mapper.live(moment).stream().collect(Collectors.toMap(
                row -> new At(row.component(), row.position(), row.environment()),
                row -> new LiveThen(row.version(), row.deployment())));
    }

    List<Differences.Changed> between(Instant since, Instant until) {
        return Differences.between(live(since), live(until));
    }

    List<OnHostThenView> hosts(Instant moment, String host, String after) {
        return mapper.hosts(moment, host, after, HOSTS).stream().map(row -> new OnHostThenView(row.host(),
                row.component(), row.environment(), row.version(), row.deployment(), row.fromAt())).toList();
    }

    /** Where there may be more. */
    Optional<String> next(List<OnHostThenView> hosts) {
        return hosts.size() < HOSTS ? Optional.empty()
                : Optional.of(hosts.getLast().host() + " " + hosts.getLast().component());
    }
}

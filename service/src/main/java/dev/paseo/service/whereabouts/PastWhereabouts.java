package dev.paseo.service.whereabouts;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.whereabouts.WhereaboutsPages.Page;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What was live at a past moment. */
@Component
class PastWhereabouts {

    record HostThenView(String host, Optional<String> version) {}

    /** What was live at a place then; {@code hosts} where one environment was asked for. */
    record ThenView(String component, String environment, String version, long deployment, Instant since,
            Optional<Instant> until, List<HostThenView> hosts) {}

    /** What was live at that moment; {@code next} as in the answer of now. */
    record PastView(List<ThenView> places, Optional<String> next) {}

    private final WhereaboutsPages pages;
    private final WhereaboutsMapper mapper;
    private final ServiceClock clock;

    PastWhereabouts(WhereaboutsPages pages, WhereaboutsMapper mapper, ServiceClock clock) {
        this.pages = pages;
        this.mapper = mapper;
        this.clock = clock;
    }

    /**
     * Shows what was live at a past moment, everywhere, or for one component or environment.
     */
    PastView at(Instant moment, String component, String environment, String after) {
        if (moment.isAfter(clock.now())) {
            throw Refusal.invalid("/moment", "should be in the past; it is " + clock.now());
        }
        Page page = pages.of(component, after);
        if (page.last().isEmpty()) {
            return new PastView(List.of(), Optional.empty());
        }
        Map<Long, List<WhereaboutsMapper.PastHostRow>> hosts = environment.isEmpty() ? Map.of()
                : mapper.hostsAt(moment, environment).stream()
                        .collect(Collectors.groupingBy(WhereaboutsMapper.PastHostRow::placeId));
        return new PastView(mapper.at(moment, environment, page.first(), page.last()).stream().map(row -> new ThenView(
                row.component(), row.environment(), row.version(), row.deployment(),
                row.since(), Optional.ofNullable(row.until()), hosts.getOrDefault(row.placeId(), List.of()).stream()
                        .map(host -> new HostThenView(host.host(), Optional.ofNullable(host.version()))).toList()))
                .toList(), page.next());
    }
}

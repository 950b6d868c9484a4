package dev.paseo.service.host;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What hosts reported last of what is live on them. */
@Component
public class HostReports {

    /**
     * @param failing which check fails, and how
     * @param drift   which files are not the version's own
     */
    public record Report(Instant checkedAt, Optional<String> failing, Optional<Instant> unhealthySince,
            Optional<String> drift, Optional<Instant> driftedSince) {

        /** Whether something is not as it should be. */
        public boolean amiss() {
            return drift.isPresent() || unhealthySince.isPresent();
        }
    }

    private final HostReportMapper mapper;

    HostReports(HostReportMapper mapper) {
        this.mapper = mapper;
    }

    /** By host. */
    public Map<String, Report> ofPlace(long place) {
        return mapper.ofPlace(place).stream()
                .collect(Collectors.toMap(HostReportMapper.ReportRow::host,
                        row -> new Report(row.checkedAt(), Optional.ofNullable(row.failing()),
                                Optional.ofNullable(row.unhealthySince()), Optional.ofNullable(row.drift()),
                                Optional.ofNullable(row.driftedSince()))));
    }

    /** All hosts that are not retired, by name. */
    List<HostReportMapper.HostRow> hosts() {
        return mapper.hosts();
    }
}

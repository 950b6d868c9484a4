package dev.paseo.service.host;

import dev.paseo.api.agent.Watch;
import dev.paseo.service.change.Changes;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Takes in what hosts report of what is live on them. */
@Component
class HostWatch {

    private static final int MOST_FILES = 10_000;
    private static final int LONGEST_PATH = 4096;
    private static final Pattern DIGEST = Pattern.compile("|[0-9a-f]{64}");

    private final HostReportMapper mapper;
    private final HostHealths healths;
    private final HostFindings findings;
    private final Changes changes;

    HostWatch(HostReportMapper mapper, HostHealths healths, HostFindings findings, Changes changes) {
        this.mapper = mapper;
        this.healths = healths;
        this.findings = findings;
        this.changes = changes;
    }

    /** @throws Refusal invalid where there are too many differing files, or they are not paths and digests */
    void report(long agent, Optional<Long> host, Watch.Report report) {
        report.seen().forEach(HostWatch::check);
        List<HostReportMapper.WatchedRow> may = mapper.watched(agent, host.orElse(null));
        changes.run(() -> {
            host.filter(own -> report.diskTotal() > 0)
                    .ifPresent(own -> mapper.disk(own, report.diskFree(), report.diskTotal()));
            Map<Boolean, List<Watch.Seen>> seen = report.seen().stream().filter(
                    each -> may.contains(new HostReportMapper.WatchedRow(each.place(), each.host(), each.deployment())))
                    .collect(Collectors.partitioningBy(findings::unknown));
            seen.get(false).forEach(healths::take);
            seen.get(true).stream().collect(Collectors.groupingBy(each -> List.of(each.place(), each.host()))).values()
                    .forEach(findings::found);
        });
    }

    private static void check(Watch.Seen seen) {
        if (seen.differing().size() > MOST_FILES || seen.differing().entrySet().stream().anyMatch(
                file -> file.getKey().length() > LONGEST_PATH || !DIGEST.matcher(file.getValue()).matches())) {
            throw Refusal.invalid("/seen/differing", "should be at most " + MOST_FILES
                    + " paths, each with the SHA-256 digest of its file in hexadecimal, or nothing where there is "
                    + "no file");
        }
    }
}

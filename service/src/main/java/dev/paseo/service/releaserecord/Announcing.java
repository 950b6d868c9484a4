package dev.paseo.service.releaserecord;

import dev.paseo.core.notes.ReleaseNotes;
import dev.paseo.core.notes.ReleaseNotes.News;
import dev.paseo.service.comparison.Comparisons;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.releaserecord.ReleaseRecordMapper.ThereRow;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Gathers what is new between two versions, or in an environment between two moments. */
@Component
class Announcing {

    private final ReleaseRecordMapper mapper;
    private final Comparisons comparisons;
    private final Versions versions;
    private final Environments environments;

    Announcing(ReleaseRecordMapper mapper, Comparisons comparisons, Versions versions, Environments environments) {
        this.mapper = mapper;
        this.comparisons = comparisons;
        this.versions = versions;
        this.environments = environments;
    }

    String between(Optional<Versions.Version> from, Versions.Version to) {
        return ReleaseNotes.markdown(to.component() + " " + to.number(), List.of(part(from, to)));
    }

    /** Of the components that pass. */
    String in(String name, Instant since, Instant until, Predicate<String> which) {
        long environment = environments.named(name).id();
        Map<String, Long> before = there(environment, since);
        Map<String, Long> after = there(environment, until);
        TreeSet<String> components = new TreeSet<>(before.keySet());
        components.addAll(after.keySet());
        List<News> parts = components.stream().filter(which)
                .filter(component -> !Optional.ofNullable(before.get(component))
                        .equals(Optional.ofNullable(after.get(component))))
                .map(component -> part(component, Optional.ofNullable(before.get(component)).map(versions::byId),
                        Optional.ofNullable(after.get(component)).map(versions::byId)))
                .toList();
        return ReleaseNotes.markdown(name + ", " + since.toString().substring(0, 10) + " to "
                + until.toString().substring(0, 10), parts);
    }

    private Map<String, Long> there(long environment, Instant moment) {
        return mapper.live(environment, moment).stream()
                .collect(Collectors.toMap(ThereRow::component, ThereRow::version));
    }

    private News part(String component, Optional<Versions.Version> before, Optional<Versions.Version> after) {
        return after.map(version -> part(before, version)).orElseGet(() -> new News(component,
                before.map(Versions.Version::number), Optional.empty(), List.of(), List.of(), 0));
    }

    private News part(Optional<Versions.Version> before, Versions.Version version) {
        Comparisons.CommitsView commits = comparisons.commits(before, version);
        return new News(version.component(), before.map(Versions.Version::number), Optional.of(version.number()),
                told(commits.commits()), told(commits.lost()), commits.commitCount() - commits.commits().size());
    }

    private static List<ReleaseNotes.Commit> told(List<Comparisons.CommitView> commits) {
        return commits.stream().map(commit -> new ReleaseNotes.Commit(commit.id(), commit.summary())).toList();
    }
}

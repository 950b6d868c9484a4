package dev.paseo.service.part;

import com.github.packageurl.MalformedPackageURLException;
import com.github.packageurl.PackageURL;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.part.PartMapper.Asked;
import dev.paseo.service.part.PartMapper.HasRow;
import dev.paseo.service.part.PartMapper.LiveRow;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Finds the versions that have a part. */
@Component
class PartFinding {

    private static final int MOST = 500;

    /** Where a version is live. */
    record PackageLiveView(String environment, long deployment) {}

    /** The part itself; {@code version} is absent where it is not told. */
    record PackagePartView(String name, Optional<String> version) {}

    /**
     * A version that has the part.
     *
     * @param parts as it has it: a version may have a part more than once
     * @param live  empty: it is live nowhere
     */
    record PackageVersionView(String component, String version, Instant sealedAt, List<PackagePartView> parts,
            List<PackageLiveView> live) {}

    /**
     * Who has a part.
     *
     * @param all whether these are all; else only the newest
     */
    record PackageView(String name, List<PackageVersionView> versions, boolean all) {}

    private final PartMapper mapper;

    PartFinding(PartMapper mapper) {
        this.mapper = mapper;
    }

    private static Asked asked(String text) {
        if (!text.startsWith("pkg:")) {
            return new Asked(text, null, MOST + 1);
        }
        try {
            PackageURL url = new PackageURL(text);
            return new Asked(new PackageURL(url.getType(), url.getNamespace(), url.getName(), null, null, null)
                    .canonicalize(), url.getVersion(), MOST + 1);
        } catch (MalformedPackageURLException wrong) {
            throw Refusal.invalid("/name",
                    "should be a package URL such as pkg:maven/org.example/horizon@3.1, or the last word of a name");
        }
    }

    PackageView of(String text, boolean live, Person person) {
        List<HasRow> rows = mapper.having(asked(text));
        Map<Long, List<HasRow>> byVersion = rows.stream().limit(MOST)
                .filter(row -> person.may(Action.LOOK, Optional.of(row.component()), Optional.empty()))
                .collect(Collectors.groupingBy(HasRow::versionId, LinkedHashMap::new, Collectors.toList()));
        Map<Long, List<LiveRow>> there = byVersion.isEmpty() ? Map.of()
                : mapper.live(List.copyOf(byVersion.keySet())).stream()
                        .collect(Collectors.groupingBy(LiveRow::versionId));
        List<PackageVersionView> versions = new ArrayList<>();
        byVersion.forEach((id, has) -> versions.add(view(has, there.getOrDefault(id, List.of()))));
        versions.removeIf(version -> live && version.live().isEmpty());
        versions.sort(Comparator.comparing((PackageVersionView version) -> version.live().isEmpty()));
        return new PackageView(text, versions, rows.size() <= MOST);
    }

    private static PackageVersionView view(List<HasRow> has, List<LiveRow> live) {
        HasRow first = has.getFirst();
        return new PackageVersionView(first.component(), first.number(), first.sealedAt(),
                has.stream().map(row -> new PackagePartView(row.name(),
                        Optional.of(row.version()).filter(version -> !version.isEmpty()))).distinct().toList(),
                live.stream().map(row -> new PackageLiveView(row.environment(), row.deployment())).toList());
    }
}

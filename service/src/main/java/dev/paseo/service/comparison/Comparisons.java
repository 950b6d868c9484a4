package dev.paseo.service.comparison;

import dev.paseo.language.piece.Used;
import java.util.LinkedHashMap;
import dev.paseo.core.evidence.Parts;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;

/** What differs between two versions, and between the variables that they are deployed with. */
@Component
public class Comparisons {

    private static final int MOST_COMMITS = 200;
    private static final int MOST_PARTS = 500;
    private static final int SHORT = 12;

    public record CommitView(String id, String summary, String author, Instant at) {}

    public record ArtifactChange(String name, Optional<String> liveDigest, Optional<Long> liveSize,
            Optional<String> digest, Optional<Long> size) {}

    /** Which value of a secret: its number among those that were set there, who set it and when. Never the value. */
    public record SecretValueView(int number, Optional<String> by, Instant at) {}

    /** A secret that is not what it was; {@code name} has {@code @HOST} where it is set for one host. */
    public record SecretChange(String name, Optional<SecretValueView> live, Optional<SecretValueView> proposed) {}

    public record VariableChange(String name, Optional<String> live, Optional<String> proposed) {}

    /** A figure of the evidence; {@code better} is absent where it is the same or cannot be compared. */
    public record FigureView(String name, Optional<String> live, Optional<String> proposed, Optional<Boolean> better) {}

    /** What the recipe, or a file that it brings, says in one and in the other. */
    public record RecipeChange(String what, Optional<String> live, Optional<String> proposed) {}

    /** A part, by its package URL or name, that is not there in the same versions; empty: it is new, or gone. */
    public record PartChangeView(String name, List<String> live, List<String> proposed) {}

    /**
     * What differs.
     *
     * @param live        the version that is compared with; empty where nothing is live
     * @param commits     that the proposed one has more, the newest first, at most 200 of {@code commitCount}
     * @param lost        commits in the one that is live that the proposed one lacks
     * @param parts       what they are made of, as reports of parts say of both; at most 500 of {@code partCount}
     * @param pieces      of other components that their pipeline files were put together from, where they differ
     */
    public record ComparisonView(Optional<String> live, String proposed, List<CommitView> commits, int commitCount,
            List<CommitView> lost, List<ArtifactChange> artifacts,
            List<VariableChange> variables, List<SecretChange> secrets, List<FigureView> evidence,
            List<RecipeChange> recipe, List<RecipeChange> files,
            List<RecipeChange> pieces, List<PartChangeView> parts, int partCount) {}

    private final Components components;
    private final Versions versions;
    private final Evidence evidence;
    private final Around around;

    /** What else differs. */
    @Component("comparisonsAround")
    record Around(BundleFiles bundles, Secrets secrets, Json json) {}

    Comparisons(Components components, Versions versions, Evidence evidence, Around around) {
        this.components = components;
        this.versions = versions;
        this.evidence = evidence;
        this.around = around;
    }

    /** What a place has, or had: its variables, and the revisions of the secrets by name. */
    public record Set(Environments.PlaceSettings settings, Map<String, Long> secrets) {}

    public ComparisonView of(Optional<Versions.Version> live, Versions.Version version, Optional<Set> before,
            Optional<Set> after) {
        CommitsView commits = commits(live, version);
        List<PartChangeView> parts = parts(live, version);
        return new ComparisonView(live.map(Versions.Version::number), version.number(), commits.commits(),
                commits.commitCount(), commits.lost(), artifacts(live, version),
                variables(before.map(Set::settings), after.map(Set::settings)), secrets(before, after),
                figures(live, version), recipe(live, version), files(live, version),
                live.map(other -> changes(pieces(other), pieces(version))).orElse(List.of()),
                parts.stream().limit(MOST_PARTS).toList(), parts.size());
    }

    /** The commits between two versions, as {@link ComparisonView} has them. */
    public record CommitsView(List<CommitView> commits, int commitCount, List<CommitView> lost) {}

    public CommitsView commits(Optional<Versions.Version> live, Versions.Version version) {
        Optional<String> from = live.flatMap(Versions.Version::commit);
        List<CommitView> commits = version.commit().map(commit -> between(version, from, commit)).orElse(List.of());
        int count = commits.size() < MOST_COMMITS ? commits.size() : from
                .map(commit -> mirror(version).distance(commit, version.commit().orElseThrow())).orElse(commits.size());
        return new CommitsView(commits, count, lost(live, version));
    }

    /** Nothing where one of the two has no report of parts: all of them would seem new, or gone. */
    private List<PartChangeView> parts(Optional<Versions.Version> live, Versions.Version version) {
        Parts before = live.map(other -> evidence.parts(other.id(), other.run())).orElse(Parts.NONE);
        Parts after = evidence.parts(version.id(), version.run());
        return before.list().isEmpty() || after.list().isEmpty() ? List.of()
                : after.since(before).stream()
                        .map(change -> new PartChangeView(change.name(), change.before(), change.after())).toList();
    }

    private List<CommitView> lost(Optional<Versions.Version> live, Versions.Version version) {
        return live.flatMap(Versions.Version::commit).filter(commit -> version.commit().isPresent())
                .map(commit -> between(version, version.commit(), commit)).orElse(List.of());
    }

    private Mirror mirror(Versions.Version version) {
        return components.mirror(components.byId(version.componentId()));
    }

    private List<CommitView> between(Versions.Version version, Optional<String> from, String to) {
        return mirror(version).between(from, to, MOST_COMMITS).stream()
                .map(each -> new CommitView(each.id(), each.summary(), each.author(), each.at())).toList();
    }

    private List<ArtifactChange> artifacts(Optional<Versions.Version> live, Versions.Version version) {
        List<Versions.Artifact> before = live.map(other -> versions.artifacts(other.id())).orElse(List.of());
        List<Versions.Artifact> after = versions.artifacts(version.id());
        TreeSet<String> names = new TreeSet<>();
        before.forEach(artifact -> names.add(artifact.name()));
        after.forEach(artifact -> names.add(artifact.name()));
        return names.stream().map(name -> {
            Optional<Versions.Artifact> old = before.stream().filter(artifact -> artifact.name().equals(name))
                    .findFirst();
            Optional<Versions.Artifact> now = after.stream().filter(artifact -> artifact.name().equals(name))
                    .findFirst();
            return new ArtifactChange(name, old.map(Versions.Artifact::digest), old.map(Versions.Artifact::size),
                    now.map(Versions.Artifact::digest), now.map(Versions.Artifact::size));
        }).toList();
    }

    /** Variables of the place, and of single hosts as {@code NAME on host}. */
    static List<VariableChange> variables(Optional<Environments.PlaceSettings> before,
            Optional<Environments.PlaceSettings> after) {
        Map<String, String> old = before.map(Comparisons::flat).orElse(Map.of());
        Map<String, String> now = after.map(Comparisons::flat).orElse(Map.of());
        TreeSet<String> names = new TreeSet<>(old.keySet());
        names.addAll(now.keySet());
        return names.stream().map(name -> new VariableChange(name, Optional.ofNullable(old.get(name)),
                Optional.ofNullable(now.get(name)))).toList();
    }

    private static Map<String, String> flat(Environments.PlaceSettings settings) {
        Map<String, String> all = new TreeMap<>(settings.variables());
        settings.hosts()
                .forEach((host, own) -> own.variables().forEach((name, value) -> all.put(name + " on " + host, value)));
        return all;
    }

    private List<SecretChange> secrets(Optional<Set> before, Optional<Set> after) {
        Map<String, Long> old = before.map(Set::secrets).orElse(Map.of());
        Map<String, Long> now = after.map(Set::secrets).orElse(Map.of());
        TreeSet<String> names = new TreeSet<>(old.keySet());
        names.addAll(now.keySet());
        return names.stream().filter(name -> before.isPresent() && !Objects.equals(old.get(name), now.get(name)))
                .map(name -> new SecretChange(name, revision(old.get(name)), revision(now.get(name)))).toList();
    }

    private Optional<SecretValueView> revision(@Nullable Long id) {
        return Optional.ofNullable(id).flatMap(around.secrets()::told)
                .map(told -> new SecretValueView(told.number(), told.by(), told.at()));
    }

    private List<FigureView> figures(Optional<Versions.Version> live, Versions.Version version) {
        Map<String, Object> before = live.map(other -> evidence.factsOfVersion(other.id(), other.run()))
                .orElse(Map.of());
        Map<String, Object> after = evidence.factsOfVersion(version.id(), version.run());
        List<FigureView> figures = new ArrayList<>();
        figure(figures, before, after, "tests", "total", "tests", true);
        figure(figures, before, after, "tests", "failed", "tests failed", false);
        figure(figures, before, after, "tests", "skipped", "tests skipped", false);
        figure(figures, before, after, "coverage", "lines", "lines covered", true);
        figure(figures, before, after, "findings", "errors", "findings: errors", false);
        figure(figures, before, after, "findings", "warnings", "findings: warnings", false);
        figure(figures, before, after, "parts", "total", "parts", false);
        figure(figures, before, after, "parts", "unlicensed", "parts without a licence", false);
        return figures;
    }

    private static void figure(List<FigureView> figures, Map<String, Object> before, Map<String, Object> after,
            String group, String field, String name, boolean more) {
        Optional<Number> old = number(before, group, field);
        Optional<Number> now = number(after, group, field);
        if (old.isEmpty() && now.isEmpty()) {
            return;
        }
        Optional<Boolean> better = old.flatMap(was -> now.filter(is -> is.doubleValue() != was.doubleValue())
                .map(is -> is.doubleValue() > was.doubleValue() == more));
        figures.add(new FigureView(name, old.map(Comparisons::words), now.map(Comparisons::words), better));
    }

    private static Optional<Number> number(Map<String, Object> facts, String group, String field) {
        return facts.get(group) instanceof Map<?, ?> of && of.get(field) instanceof Number number ? Optional.of(number)
                : Optional.empty();
    }

    private static String words(Number number) {
        return number instanceof Double share ? Math.round(share * 1000) / 10.0 + " %" : number.toString();
    }

    private List<RecipeChange> recipe(Optional<Versions.Version> live, Versions.Version version) {
        return live.isEmpty() ? List.of() : changes(flat(live.get()), flat(version));
    }

    private Map<String, String> flat(Versions.Version version) {
        Map<String, String> all = new TreeMap<>();
        version.recipe()
                .ifPresent(recipe -> flatten("", around.json().read(around.json().write(recipe), JsonNode.class), all));
        return all;
    }

    private static void flatten(String path, JsonNode node, Map<String, String> all) {
        if (node.isObject()) {
            node.properties().forEach(
                    each -> flatten(path.isEmpty() ? each.getKey() : path + "." + each.getKey(), each.getValue(), all));
        } else if (node.isArray()) {
            for (int at = 0; at < node.size(); at++) {
                flatten(path + "[" + at + "]", node.get(at), all);
            }
        } else {
            all.put(path, node.asString());
        }
    }

    /** The files that the recipe brings, by their digests. */
    private List<RecipeChange> files(Optional<Versions.Version> live, Versions.Version version) {
        return live.isEmpty() ? List.of()
                : changes(around.bundles().of(live.get().bundle()), around.bundles().of(version.bundle()));
    }

    private Map<String, String> pieces(Versions.Version version) {
        Map<String, String> pieces = new TreeMap<>();
        version.run().ifPresent(run -> pieces.putAll(pieces(components.fileOfRun(run).used())));
        return pieces;
    }

    /** By what each is and where it stands: its version, and the beginning of the SHA-256 of what it says. */
    static Map<String, String> pieces(List<Used> used) {
        Map<String, String> pieces = new LinkedHashMap<>();
        used.forEach(each -> pieces.put(
                each.piece() + " of " + each.of() + (each.at().isEmpty() ? "" : ", " + each.at()),
                each.version() + " (" + each.digest().substring(0, SHORT) + ")"));
        return pieces;
    }

    private static List<RecipeChange> changes(Map<String, String> before, Map<String, String> after) {
        TreeSet<String> names = new TreeSet<>(before.keySet());
        names.addAll(after.keySet());
        return names.stream().filter(name -> !Objects.equals(before.get(name), after.get(name)))
                .map(name -> new RecipeChange(name, Optional.ofNullable(before.get(name)),
                        Optional.ofNullable(after.get(name))))
                .toList();
    }
}

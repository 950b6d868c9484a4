package dev.paseo.service.version;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.change.Changes;
import dev.paseo.core.deployment.NoWayBack;
import dev.paseo.core.environment.Route;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.VersionMapper.VersionRow;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Versions: sealed once, in one transaction, and never changed. */
@Component
public class Versions {

    /** A named file of a version. */
    public record Artifact(String name, String fileName, String digest, long size) {}

    /**
     * What is to be sealed.
     *
     * @param run    that built it; none: it arrived
     * @param origin how it arrived
     */
    public record Outcome(String component, String number, long line, long order, boolean trusted, @Nullable Long run,
            @Nullable String commit,
            @Nullable String bundle, long cause, Optional<String> upTo, Optional<Recipe> recipe,
            List<Map<String, Route.Mode>> route, List<Artifact> artifacts, @Nullable String origin) {}

    /** A sealed version. */
    public record Version(long id, long componentId, String component, String number, long line, long order,
            String branch, boolean trusted,
            Optional<Long> run, Optional<Long> runNumber, Optional<String> commit, Optional<Recipe> recipe,
            Optional<String> bundle, Route route, String digest, long cause, Instant sealedAt, boolean blocked,
            Optional<String> origin) {}

    /** How a version's walk is asked to begin or go on. */
    public record WalkOn(long version, String from) {}

    /** A version that is live in an environment for the first time, and what led to that. */
    public record FirstLive(long version, String environment, long deployment, long cause) {}

    public static final String WALK = "walk";
    public static final String LIVE = "first-live";
    /** The effect of a sealed version that may have a preview of its own: its row. */
    public static final String PREVIEW = "preview";
    /** The effect of a version that arrived from elsewhere: its row. */
    public static final String ARRIVED = "arrived";
    /** The effect that states how a version came about: its row. */
    public static final String STATED = "state-version";
    /** The effect that states that a deployment went live: its row. */
    public static final String STATED_LIVE = "state-live";
    /** The effect that counts how long it took a deployment to go live: its row. */
    public static final String PACE = "pace";
    /** The branch of the line of uploads; no branch can have a space in its name. */
    public static final String UPLOADED = "by upload";

    private record StoredRoute(int format, List<Map<String, Route.Mode>> steps, Optional<String> upTo) {}

    private record StoredRecipe(int format, Optional<Recipe> recipe) {}

    private static final int MOST_RECIPES = 500;

    private final Map<String, Optional<Recipe>> recipes = new ConcurrentHashMap<>();
    private final VersionMapper mapper;
    private final Json json;
    private final KeptBytes bytes;
    private final Aftermath aftermath;

    /** What follows from sealing. */
    @Component
    record Aftermath(Effects effects, Changes changes, Announcements announcements) {}

    Versions(VersionMapper mapper, Json json, KeptBytes bytes, Aftermath aftermath) {
        this.mapper = mapper;
        this.json = json;
        this.bytes = bytes;
        this.aftermath = aftermath;
    }

    /** Seals what a run left, in the transaction in which the run ends. */
    public void seal(long component, Outcome outcome) {
        long version = keep(component, outcome);
        if (outcome.trusted() && outcome.recipe().isPresent()) {
            walkOn(version, "");
        }
        if (outcome.recipe().isPresent() && outcome.commit() != null) {
            aftermath.effects().add("preview " + version, "preview of version " + version, PREVIEW,
                    Long.toString(version));
        }
    }

    /** Seals what arrived from elsewhere; what follows waits for what its arrival starts. The version's row. */
    public long arrive(long component, Outcome outcome, Set<String> authors) {
        long version = keep(component, outcome);
        authors.forEach(address -> mapper.addAuthor(version, address));
        aftermath.effects().add("arrival " + version, "version " + version + " arrived", ARRIVED,
                Long.toString(version));
        return version;
    }

    private long keep(long component, Outcome outcome) {
        String recipe = json.write(new StoredRecipe(1, outcome.recipe()));
        String route = json
                .write(new StoredRoute(1, outcome.route(), outcome.upTo()));
        VersionMapper.NewVersion row = new VersionMapper.NewVersion(component, outcome, recipe, route,
                digest(outcome, recipe), aftermath.changes().now());
        mapper.add(row);
        outcome.artifacts().forEach(artifact -> {
            mapper.addArtifact(row.id, artifact);
            bytes.refer(artifact.digest(), "version", row.id);
        });
        Optional.ofNullable(outcome.bundle()).ifPresent(bundle -> bytes.refer(bundle, "version", row.id));
        aftermath.changes()
                .record(AuditTrail.Entry.of("paseo", "version sealed", outcome.component() + " " + outcome.number())
                        .with("digest", row.digest)
                        .with(outcome.commit() == null ? "origin" : "commit",
                                Optional.ofNullable(outcome.commit()).orElse(String.valueOf(outcome.origin()))));
        aftermath.announcements().sealed(outcome.component(), outcome.number(), row.digest,
                Optional.ofNullable(outcome.commit()));
        aftermath.changes().publish("version", outcome.component() + " " + outcome.number());
        aftermath.effects().add("statement " + row.id, "state version " + row.id, STATED, Long.toString(row.id));
        return row.id;
    }

    /** Begins the walk of a version that waited for its run. */
    public void walkBegins(long version) {
        if (byId(version).recipe().isPresent()) {
            walkOn(version, "");
        }
    }

    /** The walk begins, or goes on from an environment that the version has left. */
    public void walkOn(long version, String from) {
        aftermath.effects().add("version " + version, "walk version " + version + " from " + from, WALK,
                json.write(new WalkOn(version, from)));
    }

    /** A version is live somewhere for the first time: what waits for that may start. */
    public void firstLive(FirstLive live) {
        aftermath.effects().add("live " + live.version(),
                "version " + live.version() + " live in " + live.environment(), LIVE, json.write(live));
    }

    /** A deployment went live: that is stated, and counted. */
    public void wentLive(long deployment) {
        aftermath.effects().add("statement live " + deployment, "state live " + deployment, STATED_LIVE,
                Long.toString(deployment));
        aftermath.effects().add("pace " + deployment, "pace " + deployment, PACE, Long.toString(deployment));
    }

    /** What was live was taken back: that is counted. */
    public void takenBack(long deployment) {
        aftermath.effects().add("pace " + deployment, "pace of what was taken back " + deployment, PACE,
                Long.toString(deployment));
    }

    private static String digest(Outcome outcome, String recipe) {
        StringBuilder text = new StringBuilder(
                "paseo version 1\n" + outcome.component() + "\n" + outcome.number() + "\n" + outcome.commit() + "\n"
                        + outcome.bundle() + "\n" + recipe + "\n");
        outcome.artifacts().stream().map(artifact -> artifact.name() + " " + artifact.digest() + "\n").sorted()
                .forEach(text::append);
        return Sha256.hex(text.toString());
    }

    /** What its recipe says may not be gone back behind; a version that is not there is its own. */
    public Optional<NoWayBack> noWayBack(Version version) {
        return version.recipe().flatMap(Recipe::noWayBackBefore).map(number -> new NoWayBack(version.line(),
                mapper.orderOf(version.line(), number).orElse(version.order())));
    }

    public Version byId(long id) {
        return sealed(mapper.byId(id));
    }

    public Version numbered(long component, String name, String number) {
        return mapper.numbered(component, number).or(() -> mapper.alsoNamed(component, number)).map(this::sealed)
                .orElseThrow(() -> Refusal.notFound(
                        name + " has no version " + number + mapper.numbers(component).stream().findFirst()
                                .map(newest -> "; the newest is " + newest).orElse("")));
    }

    /** How many versions of a line there are. */
    public long count(long line) {
        return mapper.count(line);
    }

    /** What else it is called: tags on its commit. */
    public List<String> names(long version) {
        return mapper.names(version);
    }

    public boolean exists(long component, String number) {
        return mapper.numbered(component, number).isPresent();
    }

    public List<Version> newest(long component, int limit) {
        return mapper.newest(component, limit).stream().map(this::sealed).toList();
    }

    public List<Artifact> artifacts(long version) {
        return mapper.artifacts(version).stream()
                .map(row -> new Artifact(row.name(), row.fileName(), row.digest(), row.size())).toList();
    }

    /** How far it may walk by itself, where its run was started so. */
    public Optional<String> upTo(long version) {
        return json.read(mapper.byId(version).route(), StoredRoute.class).upTo();
    }

    /** Many versions have the same recipe, and reading it takes longer than fetching it. */
    private Optional<Recipe> recipe(String text) {
        if (recipes.size() > MOST_RECIPES) {
            recipes.clear();
        }
        return recipes.computeIfAbsent(text, stored -> json.read(stored, StoredRecipe.class).recipe());
    }

    private Version sealed(VersionRow row) {
        return new Version(row.id(), row.componentId(), row.component(), row.number(), row.lineId(), row.lineOrder(),
                row.branch(), row.trusted(),
                Optional.ofNullable(row.runId()), Optional.ofNullable(row.runNumber()),
                Optional.ofNullable(row.commitId()),
                recipe(row.recipe()), Optional.ofNullable(row.bundle()),
                new Route(json.read(row.route(), StoredRoute.class).steps()), row.digest(), row.causeId(),
                row.sealedAt(), row.blockedAt() != null,
                Optional.ofNullable(row.origin()));
    }
}

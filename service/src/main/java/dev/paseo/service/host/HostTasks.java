package dev.paseo.service.host;

import dev.paseo.api.agent.Assignment;
import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.HostContent;
import dev.paseo.core.deployment.HostTask;
import dev.paseo.core.deployment.Movement;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.agent.Work;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Makes what agents are told to do for deployments. */
@Component
class HostTasks {

    private static final TypeReference<Map<String, String>> ANSWERS = new TypeReference<>() {};

    private final Deployments deployments;
    private final Environments environments;
    private final Versions versions;
    private final Secrets secrets;
    private final HostContents contents;
    private final Json json;

    HostTasks(Deployments deployments, Environments environments, Versions versions, Secrets secrets,
            HostContents contents, Json json) {
        this.contents = contents;
        this.deployments = deployments;
        this.environments = environments;
        this.versions = versions;
        this.secrets = secrets;
        this.json = json;
    }

    /** What is deployed by a task, where, and with which settings. */
    private record Deploying(Deployment row, Versions.Version version, Recipe recipe, Place place, PlaceHost host,
            Environments.PlaceSettings settings,
            Optional<Environments.HostSettings> own) {}

    /** The deployment whose version and settings a task works with. */
    private Deployment about(HostTask task, Deployment row) {
        boolean before = task == HostTask.UNDO || task == HostTask.CLEAR;
        return before ? deployments.get(Objects.requireNonNull(row.replacesId())) : row;
    }

    /** Whether a task needs the bytes of this digest. */
    boolean reaches(Work work, Deployment row, String digest) {
        Versions.Version version = versions.byId(about(HostTask.valueOf(work.kind()), row).versionId());
        return version.bundle().filter(digest::equals).isPresent() || versions.artifacts(version.id()).stream()
                .anyMatch(artifact -> artifact.digest().equals(digest)
                        && version.recipe().orElseThrow().artifacts().contains(artifact.name()));
    }

    Recipe recipe(Deployment row) {
        return versions.byId(row.versionId()).recipe().orElseThrow();
    }

    Assignment assignment(Work work, Deployment row) {
        HostTask task = HostTask.valueOf(work.kind());
        Deploying now = deploying(work, about(task, row));
        Recipe.Parts parts = now.recipe().parts();
        return switch (task) {
            case INSTALL -> task(work, now, parts.onEachHost(), List.of(), Map.of());
            case UNDO -> task(work, now, parts.onEachHost(), now.recipe().eachHost(), Map.of());
            case REMOVE, CLEAR -> task(work, now, parts.removal(), List.of(), Map.of());
            case CHECK, WATCH -> task(work, now, List.of(), now.recipe().eachHost(), Map.of());
            case WHOLE, WATCH_WHOLE -> task(work, now, List.of(), now.recipe().whole(), Map.of());
            case ONCE_BEFORE -> task(work, now, parts.onceBefore(), List.of(), Map.of());
            case ONCE_AFTER -> task(work, now, parts.onceAfter(), List.of(), Map.of());
            case TRAFFIC -> task(work, now, parts.traffic(), List.of(),
                    traffic(now, course(now).now().map(Movement::share).orElse(0)));
            case TRAFFIC_BACK -> task(work, now, parts.traffic(), List.of(), traffic(now, 0));
            case TEST -> task(work, now, test(now).map(Recipe.Test::steps).orElse(List.of()), List.of(), Map.of());
        };
    }

    private Deploying deploying(Work work, Deployment row) {
        Versions.Version version = versions.byId(row.versionId());
        Place place = environments.placeById(row.placeId());
        long id = Objects.requireNonNull(work.hostId());
        PlaceHost host = environments.host(place.id(), id).orElseGet(() -> new PlaceHost(id, environments.hostName(id),
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty()));
        return deploying(row, version, place, host);
    }

    private Deploying deploying(Deployment row, Versions.Version version, Place place, PlaceHost host) {
        Environments.PlaceSettings settings = environments.settings(place.id(), row.settingsRevision());
        return new Deploying(row, version, version.recipe().orElseThrow(), place, host, settings,
                contents.own(place, settings, host.name()));
    }

    private Course course(Deploying now) {
        return deployments.state(now.row()).course();
    }

    private Optional<Recipe.Test> test(Deploying now) {
        return course(now).now().flatMap(Movement::name).map(name -> now.recipe().afterwards().tests().get(name));
    }

    /**
     * Where the traffic goes: all that a script or a balancer's own interface needs to bring it about, however often it
     * is told.
     */
    private Map<String, String> traffic(Deploying now, int share) {
        Course course = course(now);
        String filled = course.sides().filled().orElse("");
        String before = course.sides().before().orElse("");
        Map<String, String> words = new LinkedHashMap<>();
        words.put("PASEO_SIDE", filled);
        words.put("PASEO_SHARE", Integer.toString(share));
        words.put("PASEO_SIDE_URLS", urls(now.place(), filled));
        words.put("PASEO_OTHER_SIDE", before);
        words.put("PASEO_OTHER_URLS", urls(now.place(), before));
        return words;
    }

    private String urls(Place place, String side) {
        return environments.hosts(place.id()).stream().filter(host -> host.side().filter(side::equals).isPresent())
                .flatMap(host -> host.url().stream()).collect(Collectors.joining(" "));
    }

    private Assignment task(Work work, Deploying now, List<Recipe.Command> commands, List<Recipe.Check> checks,
            Map<String, String> more) {
        List<Assignment.Step> steps = new ArrayList<>();
        for (Recipe.Command command : commands) {
            steps.add(new Assignment.Step(steps.size() + 1, command.name(), command.command(),
                    command.timeout().toSeconds(), 0));
        }
        boolean needsFiles = !steps.isEmpty() || checks.stream().anyMatch(check -> check.command().isPresent());
        Map<String, String> variables = variables(now);
        variables.putAll(more);
        return new Assignment(work.id(), 0, "", 0, Assignment.Kind.valueOf(work.kind()), variables,
                needsFiles ? secrets.values(revisions(now)) : Map.of(), steps, Optional.empty(),
                needsFiles ? now.version().bundle() : Optional.empty(),
                needsFiles ? artifacts(now) : List.of(),
                checks.stream().map(check -> check(check, placeholders(now))).toList(), Optional.of(ofPlace(work, now)),
                work.untrusted());
    }

    /** Of the revisions recorded, those of the host beat those of the place. */
    private Map<String, Long> revisions(Deploying now) {
        return HostContent.revisions(json.read(now.row().secretRevisions(), HostContents.REVISIONS), now.host().name());
    }

    private Assignment.OfPlace ofPlace(Work work, Deploying now) {
        HostTask task = HostTask.valueOf(work.kind());
        boolean watches = task == HostTask.WATCH || task == HostTask.WATCH_WHOLE;
        long seconds = watches ? course(now).now().flatMap(Movement::length).map(Duration::toSeconds).orElse(0L) : 0;
        List<Assignment.Report> reports = task == HostTask.TEST ? test(now)
                .map(test -> test.reports().entrySet().stream()
                        .map(report -> new Assignment.Report(report.getKey().word(), report.getValue())).toList())
                .orElse(List.of()) : List.of();
        return new Assignment.OfPlace(seconds, reports,
                now.own().flatMap(Environments.HostSettings::ssh).map(ssh -> ssh(ssh, now)));
    }

    Assignment.Ssh ssh(Environments.Ssh ssh, long component, long environment) {
        String key = secrets.values(secrets.revisions(List.of(ssh.key()), component, environment))
                .getOrDefault(ssh.key(), "");
        return new Assignment.Ssh(ssh.address(), ssh.port(), ssh.user(), key, ssh.hostKey(), ssh.folder());
    }

    private Assignment.Ssh ssh(Environments.Ssh ssh, Deploying now) {
        return ssh(ssh, now.place().componentId(), now.place().environmentId());
    }

    private List<Assignment.Artifact> artifacts(Deploying now) {
        return versions.artifacts(now.version().id()).stream()
                .filter(artifact -> now.recipe().artifacts().contains(artifact.name()))
                .map(artifact -> new Assignment.Artifact(artifact.name(), artifact.fileName(), artifact.digest(),
                        artifact.size()))
                .toList();
    }

    /** Of variables host beats place; what was asked of whoever started its run reaches its recipe too. */
    private Map<String, String> variables(Deploying now) {
        Map<String, String> variables = new LinkedHashMap<>(now.settings().variables());
        now.own().ifPresent(more -> variables.putAll(more.variables()));
        now.version().runNumber().ifPresent(run -> {
            variables.put("PASEO_RUN", now.version().component() + "#" + run);
            deployments.answers(now.place().componentId(), run)
                    .ifPresent(answers -> json.read(answers, ANSWERS).forEach((name, answer) -> variables
                            .put("PASEO_ASK_" + name.toUpperCase(Locale.ROOT).replace('-', '_'), answer)));
        });
        variables.put("PASEO_COMPONENT", now.version().component());
        variables.put("PASEO_VERSION", now.version().number());
        variables.put("PASEO_COMMIT", now.version().commit().orElse(""));
        variables.put("PASEO_BRANCH", now.version().branch());
        variables.put("PASEO_ENVIRONMENT", now.place().environment());
        now.settings().url().ifPresent(url -> variables.put("PASEO_URL", url));
        variables.put("PASEO_HOST", now.host().name());
        now.own().flatMap(Environments.HostSettings::url).ifPresent(url -> variables.put("PASEO_HOST_URL", url));
        now.host().side().ifPresent(side -> variables.put("PASEO_SIDE", side));
        return variables;
    }

    private Map<String, String> placeholders(Deploying now) {
        Map<String, String> words = new LinkedHashMap<>();
        variables(now).forEach((name, value) -> words.put("variables." + name, value));
        words.put("version", now.version().number());
        words.put("commit", now.version().commit().orElse(""));
        words.put("component", now.version().component());
        words.put("environment", now.place().environment());
        now.settings().url().ifPresent(url -> words.put("url", url));
        words.put("host", now.host().name());
        now.own().flatMap(Environments.HostSettings::url).ifPresent(url -> words.put("host.url", url));
        words.put("side", now.host().side().orElse(""));
        return words;
    }

    private static Assignment.Check check(Recipe.Check check, Map<String, String> words) {
        Assignment.CheckKind kind = check.http().isPresent() ? Assignment.CheckKind.HTTP
                : check.command().isPresent() ? Assignment.CheckKind.COMMAND
                        : check.port().isPresent() ? Assignment.CheckKind.PORT : Assignment.CheckKind.METRIC;
        String target = check.http().or(check::command).or(check::port)
                .or(() -> check.metric().map(Recipe.Metric::address)).orElse("");
        return new Assignment.Check(kind, check.command().isPresent() ? target : fill(target, words), check.status(),
                check.contains().map(text -> fill(text, words)), filled(check.header(), words),
                filled(check.json(), words), check.redirects().orElse(0),
                check.metric().map(metric -> new Assignment.Limits(metric.name(), metric.atLeast(), metric.atMost())),
                check.within().toMillis());
    }

    private static Map<String, String> filled(Map<String, String> texts, Map<String, String> words) {
        Map<String, String> filled = new LinkedHashMap<>();
        texts.forEach((name, text) -> filled.put(name, fill(text, words)));
        return filled;
    }

    static String fill(String text, Map<String, String> words) {
        String filled = text;
        for (Map.Entry<String, String> word : words.entrySet()) {
            filled = filled.replace("{" + word.getKey() + "}", word.getValue());
        }
        return filled;
    }

    /** What an agent keeps an eye on while a version is live: where its artifacts lie, and its checks of the host. */
    record Watched(Map<String, String> installed, List<Assignment.Check> checks, Optional<Assignment.Ssh> ssh) {}

    Watched watched(Deployment row, PlaceHost host) {
        Versions.Version version = versions.byId(row.versionId());
        Place place = environments.placeById(row.placeId());
        Deploying now = deploying(row, version, place, host);
        Map<String, String> digests = versions.artifacts(version.id()).stream()
                .collect(Collectors.toMap(Versions.Artifact::name, Versions.Artifact::digest));
        Map<String, String> installed = new LinkedHashMap<>();
        now.recipe().installed().forEach((name, path) -> Optional.ofNullable(digests.get(name))
                .ifPresent(digest -> installed.put(fill(path, placeholders(now)), digest)));
        List<Assignment.Check> checks = now.recipe().eachHost().stream().filter(check -> check.command().isEmpty())
                .map(check -> check(check, placeholders(now))).toList();
        return new Watched(installed, checks,
                now.own().flatMap(Environments.HostSettings::ssh).map(ssh -> ssh(ssh, now)));
    }
}

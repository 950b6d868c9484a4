package dev.paseo.service.deployment;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.core.deployment.HostOutcome;
import dev.paseo.core.deployment.HostTask;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.agent.Work;
import dev.paseo.service.agent.WorkOwner;
import dev.paseo.service.database.Json;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** The work of deployments on hosts. */
@Component
class HostWork implements WorkOwner {

    private static final TypeReference<Map<String, Long>> REVISIONS = new TypeReference<>() {};
    private static final long STEP_TIMEOUT_SECONDS = 600;

    private final Places places;
    private final DeploymentMapper mapper;
    private final Environments environments;
    private final Versions versions;
    private final Values values;

    /** Where values come from. */
    @Component
    record Values(Secrets secrets, Json json) {}

    HostWork(Places places, DeploymentMapper mapper, Environments environments, Versions versions, Values values) {
        this.places = places;
        this.mapper = mapper;
        this.environments = environments;
        this.versions = versions;
        this.values = values;
    }

    @Override
    public Set<Assignment.Kind> kinds() {
        return Set.of(Assignment.Kind.INSTALL, Assignment.Kind.CHECK, Assignment.Kind.UNDO, Assignment.Kind.REMOVE);
    }

    private DeploymentRow deployment(Work work) {
        return mapper.byId(Objects.requireNonNull(work.deploymentId())).orElseThrow();
    }

    private PlaceHost host(Work work, DeploymentRow row) {
        long id = Objects.requireNonNull(work.hostId());
        return environments.hosts(row.placeId()).stream().filter(host -> host.id() == id).findFirst().orElseThrow();
    }

    @Override
    public Held lock(Work work) {
        places.lock(deployment(work).placeId());
        return new Held() {
            @Override
            public boolean taken(String agent) {
                return Set.of("deploying", "checking", "undoing").contains(deployment(work).status());
            }

            @Override
            public void ended(Lease.Outcome outcome, String reason, boolean touched) {
                DeploymentRow row = deployment(work);
                HostOutcome end = switch (outcome) {
                    case PASSED -> new HostOutcome.Done();
                    case FAILED -> new HostOutcome.Failed(reason, touched);
                    case STOPPED -> new HostOutcome.Failed("stopped", touched);
                    case LOST -> new HostOutcome.Failed("lost: " + reason, true);
                };
                places.change(row.placeId(), place -> Optional.of(new PlaceEvent.HostReported(row.id(), host(work, row).name(),
                        HostTask.valueOf(work.kind()), end)));
            }
        };
    }

    @Override
    public Assignment assignment(Work work) {
        DeploymentRow row = deployment(work);
        PlaceHost host = host(work, row);
        Assignment.Kind kind = Assignment.Kind.valueOf(work.kind());
        return switch (kind) {
            case INSTALL -> task(work, kind, row, host, PipelineFile.Recipe::onEachHost, false);
            case REMOVE -> task(work, kind, row, host, PipelineFile.Recipe::removal, false);
            case CHECK -> task(work, kind, row, host, recipe -> List.of(), true);
            case UNDO -> task(work, kind, mapper.byId(Objects.requireNonNull(row.replacesId())).orElseThrow(), host,
                    PipelineFile.Recipe::onEachHost, true);
            case STAGE -> throw new IllegalStateException("a stage is not a deployment's work");
        };
    }

    private Assignment task(Work work, Assignment.Kind kind, DeploymentRow row, PlaceHost host,
            java.util.function.Function<PipelineFile.Recipe, List<String>> commands, boolean checked) {
        Versions.Sealed version = versions.byId(row.versionId());
        PipelineFile.Recipe recipe = version.recipe().orElseThrow();
        Place place = environments.placeById(row.placeId());
        Environments.Settings settings = environments.settings(place.id(), row.settingsRevision());
        List<Assignment.Step> steps = new ArrayList<>();
        for (String command : commands.apply(recipe)) {
            steps.add(new Assignment.Step(steps.size() + 1, command.lines().findFirst().orElse(command), command, STEP_TIMEOUT_SECONDS, 0));
        }
        boolean needsFiles = !steps.isEmpty();
        List<Assignment.Artifact> artifacts = needsFiles ? artifacts(version, recipe) : List.of();
        Map<String, Long> revisions = values.json().read(row.secretRevisions(), REVISIONS);
        return new Assignment(work.id(), 0, "", 0, kind, variables(version, place, settings, host),
                needsFiles ? values.secrets().values(revisions) : Map.of(), steps, Optional.empty(), needsFiles ? version.bundle() : Optional.empty(),
                artifacts, checked ? checks(recipe, version, place, settings, host) : List.of());
    }

    private List<Assignment.Artifact> artifacts(Versions.Sealed version, PipelineFile.Recipe recipe) {
        return versions.artifacts(version.id()).stream().filter(artifact -> recipe.artifacts().contains(artifact.name()))
                .map(artifact -> new Assignment.Artifact(artifact.name(), artifact.fileName(), artifact.digest(), artifact.size())).toList();
    }

    /** Of variables host beats place. */
    private static Map<String, String> variables(Versions.Sealed version, Place place, Environments.Settings settings, PlaceHost host) {
        Map<String, String> variables = new LinkedHashMap<>(settings.variables());
        Optional<Environments.HostSettings> own = Optional.ofNullable(settings.hosts().get(host.name()));
        own.ifPresent(more -> variables.putAll(more.variables()));
        variables.put("PASEO_COMPONENT", version.component());
        variables.put("PASEO_VERSION", version.number());
        variables.put("PASEO_COMMIT", version.commit().orElse(""));
        variables.put("PASEO_BRANCH", version.branch());
        variables.put("PASEO_ENVIRONMENT", place.environment());
        variables.put("PASEO_URL", settings.url().orElse(""));
        variables.put("PASEO_HOST", host.name());
        variables.put("PASEO_HOST_URL", own.flatMap(Environments.HostSettings::url).orElse(""));
        return variables;
    }

    private static List<Assignment.HttpCheck> checks(PipelineFile.Recipe recipe, Versions.Sealed version, Place place,
            Environments.Settings settings, PlaceHost host) {
        Map<String, String> words = new LinkedHashMap<>();
        variables(version, place, settings, host).forEach((name, value) -> words.put("variables." + name, value));
        words.put("version", version.number());
        words.put("commit", version.commit().orElse(""));
        words.put("component", version.component());
        words.put("environment", place.environment());
        words.put("url", settings.url().orElse(""));
        words.put("host", host.name());
        words.put("host.url", Optional.ofNullable(settings.hosts().get(host.name())).flatMap(Environments.HostSettings::url).orElse(""));
        return recipe.eachHost().stream().map(check -> new Assignment.HttpCheck(fill(check.http(), words), check.status(),
                check.contains().map(text -> fill(text, words)), check.within().toMillis())).toList();
    }

    private static String fill(String text, Map<String, String> words) {
        String filled = text;
        for (Map.Entry<String, String> word : words.entrySet()) {
            filled = filled.replace("{" + word.getKey() + "}", word.getValue());
        }
        return filled;
    }

    @Override
    public Optional<StageFiles> files() {
        return Optional.empty();
    }
}

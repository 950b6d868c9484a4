package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.bytes.SentBytes;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.passage.WalkStays;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Versions with their walk; the walk is made of deployments, so the page of a version is told here. */
@RestController
@RequestMapping("/api/v1")
class VersionController {

    /**
     * An environment of the walk: whether the version is live there, was, and how it went; {@code stays} says why it
     * does not go there by itself, {@code keeps} why it does not go on from there.
     *
     * @param noPlace why nothing of its component can be deployed there
     */
    record StopView(String environment, Optional<Long> passage, Optional<Instant> openedAt, Optional<Instant> endedAt,
            Optional<String> live, boolean gated, Optional<String> noPlace, Optional<String> stays,
            Optional<String> keeps) {}

    /**
     * A version, whole.
     *
     * @param names  what else it is called: tags on its commit
     * @param blocked by whom and why nobody deploys it any more
     * @param origin   how it arrived, where no run sealed it
     * @param evidence of a version that arrived: what came with it, and what the runs that its arrival started reported
     */
    record VersionView(String component, String number, List<String> names, Optional<String> origin, String branch,
            boolean trusted, Optional<String> commit, Optional<String> commitSummary,
            Optional<String> commitAuthor, Optional<Long> run, String digest, Optional<String> bundle, Instant sealedAt,
            List<Versions.Artifact> artifacts, Map<String, Integer> recipe, List<StopView> walk,
            List<DeploymentSummary> deployments, List<Causes.Link> causes, List<EvidenceViews.KnownView> evidence,
            Optional<String> blocked) {}

    private final Components components;
    private final Versions versions;
    private final Environments environments;
    private final DeploymentViews views;
    private final Lookups lookups;

    /** What else a version's page shows. */
    @org.springframework.stereotype.Component("versionLookups")
    record Lookups(Places places, SentBytes bytes, Causes causes, EvidenceViews evidence, Holds holds,
            WalkStays stays) {}

    VersionController(Components components, Versions versions, Environments environments, DeploymentViews views,
            Lookups lookups) {
        this.components = components;
        this.versions = versions;
        this.environments = environments;
        this.views = views;
        this.lookups = lookups;
    }

    private Versions.Version look(Person person, String component, String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return versions.numbered(components.named(component).id(), component, number);
    }

    /** The numbers of the newest versions of a component, at most 200. */
    @GetMapping("/versions/{component}")
    List<String> newest(@AuthenticationPrincipal Person person, @PathVariable String component) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return versions.newest(components.named(component).id(), 100).stream().map(Versions.Version::number).toList();
    }

    /** One version: its artifacts, evidence, walk and deployments. */
    @GetMapping("/versions/{component}/{number}")
    VersionView version(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Versions.Version version = look(person, component, number);
        Optional<Mirror.Commit> commit = version.commit()
                .map(id -> components.mirror(components.named(component)).commit(id));
        List<Environments.Stay> stays = environments.stays(version.id());
        List<StopView> walk = version.route().environments().stream()
                .map(environment -> stop(version, environment, stays)).toList();
        return new VersionView(component, version.number(), versions.names(version.id()), version.origin(),
                version.branch(), version.trusted(), version.commit(), commit.map(Mirror.Commit::summary),
                commit.map(Mirror.Commit::author), version.runNumber(), version.digest(), version.bundle(),
                version.sealedAt(),
                versions.artifacts(version.id()),
                version.recipe().map(recipe -> Map.of("steps", recipe.parts().onEachHost().size(),
                        "checks", recipe.eachHost().size())).orElse(Map.of()),
                walk, views.ofVersion(version.id()), lookups.causes().chain(version.cause()),
                lookups.evidence().ofVersion(version.id()), lookups.holds().blocked(version.id()));
    }

    private StopView stop(Versions.Version version, String environment, List<Environments.Stay> stays) {
        Optional<Environments.Stay> stay = stays.stream().filter(each -> each.environment().equals(environment))
                .findFirst();
        Optional<String> live = environments.find(version.component(), environment).flatMap(lookups.places()::live)
                .map(Versions.Version::number);
        boolean gated = environments.all().stream()
                .anyMatch(known -> known.name().equals(environment) && known.rules().asksPeople());
        return new StopView(environment, stay.map(Environments.Stay::passage), stay.map(Environments.Stay::openedAt),
                stay.flatMap(Environments.Stay::endedAt), live, gated,
                environments.whyNoPlace(version.component(), environment),
                lookups.stays().of(version.id()).stream().filter(each -> each.environment().equals(environment))
                        .map(WalkStays.Stay::reason).findFirst(),
                stay.filter(each -> live.equals(Optional.of(version.number()))).flatMap(Environments.Stay::keeps));
    }

    /** The bytes of an artifact. Its digest is the ETag, and it never changes. */
    @GetMapping("/versions/{component}/{number}/artifacts/{name}")
    void artifact(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @PathVariable String name, HttpServletResponse response) throws IOException {
        Versions.Version version = look(person, component, number);
        Versions.Artifact artifact = versions.artifacts(version.id()).stream().filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(component + " " + number + " has no artifact " + name));
        lookups.bytes().send(artifact.digest(), artifact.size(), artifact.fileName(), response);
    }
}

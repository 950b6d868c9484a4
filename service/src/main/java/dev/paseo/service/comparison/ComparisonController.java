package dev.paseo.service.comparison;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Places;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What differs: between two versions, or between two environments. */
@RestController
@RequestMapping("/api/v1/comparison")
class ComparisonController {

    /** A secret, and where it has a value: never the value. */
    record SecretDifference(String name, boolean from, boolean to) {}

    /** One component in two environments; {@code versions} is absent where nothing is live in one of them. */
    record PlaceDifference(String component, Optional<String> from, Optional<String> to,
            Optional<Comparisons.ComparisonView> versions,
            List<Comparisons.VariableChange> variables, List<SecretDifference> secrets) {}

    private final Comparisons comparisons;
    private final Components components;
    private final Versions versions;
    private final Environments environments;
    private final Around around;

    /** What places have and may have. */
    @org.springframework.stereotype.Component("comparisonAround")
    record Around(Places places, Secrets secrets) {}

    ComparisonController(Comparisons comparisons, Components components, Versions versions, Environments environments,
            Around around) {
        this.comparisons = comparisons;
        this.components = components;
        this.versions = versions;
        this.environments = environments;
        this.around = around;
    }

    /** What differs between two versions of a component. */
    @GetMapping("/versions/{component}")
    Comparisons.ComparisonView versions(@AuthenticationPrincipal Person person, @PathVariable String component,
            @RequestParam String from, @RequestParam String to) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        long id = components.named(component).id();
        return comparisons.of(Optional.of(versions.numbered(id, component, from)), versions.numbered(id, component, to),
                Optional.empty(), Optional.empty());
    }

    /**
     * Component by component, all of it from one environment to the other: versions, variables, and which secrets have
     * a value.
     */
    @GetMapping("/environments")
    List<PlaceDifference> environments(@AuthenticationPrincipal Person person, @RequestParam String from,
            @RequestParam String to, @RequestParam(defaultValue = "") String component) {
        Permission.require(person, Action.LOOK);
        environments.named(from);
        environments.named(to);
        return components.all().stream().filter(each -> component.isEmpty() || each.name().equals(component))
                .flatMap(each -> environments.find(each.name(), from)
                        .flatMap(left -> environments.find(each.name(), to).map(right -> difference(left, right)))
                        .stream())
                .toList();
    }

    private PlaceDifference difference(Place from, Place to) {
        Optional<Versions.Version> left = around.places().live(from);
        Optional<Versions.Version> right = around.places().live(to);
        Environments.Settings before = environments.settings(from.id(), from.settingsRevision());
        Environments.Settings after = environments.settings(to.id(), to.settingsRevision());
        List<String> names = left.or(() -> right).flatMap(Versions.Version::recipe).map(recipe -> recipe.secrets())
                .orElse(List.of());
        List<String> missingFrom = around.secrets().missing(names, from.componentId(), from.environmentId());
        List<String> missingTo = around.secrets().missing(names, to.componentId(), to.environmentId());
        return new PlaceDifference(from.component(), left.map(Versions.Version::number),
                right.map(Versions.Version::number),
                left.flatMap(live -> right.filter(other -> other.id() != live.id()).map(
                        proposed -> comparisons.of(Optional.of(live), proposed, Optional.empty(), Optional.empty()))),
                Comparisons.variables(Optional.of(before), Optional.of(after)).stream()
                        .filter(change -> !change.live().equals(change.proposed())).toList(),
                names.stream()
                        .map(name -> new SecretDifference(name, !missingFrom.contains(name), !missingTo.contains(name)))
                        .toList());
    }
}

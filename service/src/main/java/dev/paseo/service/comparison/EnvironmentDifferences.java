package dev.paseo.service.comparison;

import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.Places;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What differs between two environments, component by component. */
@Component
class EnvironmentDifferences {

    /** A secret, and where it has a value: never the value. */
    record SecretDifference(String name, boolean from, boolean to) {}

    /** One component in two environments; {@code versions} is absent where nothing is live in one of them. */
    record PlaceDifference(String component, Optional<String> from, Optional<String> to,
            Optional<Comparisons.ComparisonView> versions,
            List<Comparisons.VariableChange> variables, List<SecretDifference> secrets) {}

    private final Comparisons comparisons;
    private final Components components;
    private final Environments environments;
    private final Places places;
    private final Secrets secrets;

    EnvironmentDifferences(Comparisons comparisons, Components components, Environments environments, Places places,
            Secrets secrets) {
        this.comparisons = comparisons;
        this.components = components;
        this.environments = environments;
        this.places = places;
        this.secrets = secrets;
    }

    /**
     * All of it from one to the other: versions, variables, and which secrets have a value.
     *
     * @param component of this alone; empty: of all that have a place in both
     */
    List<PlaceDifference> between(String from, String to, String component) {
        environments.named(from);
        environments.named(to);
        return components.all().stream().filter(each -> component.isEmpty() || each.name().equals(component))
                .flatMap(each -> environments.find(each.name(), from)
                        .flatMap(left -> environments.find(each.name(), to).map(right -> difference(left, right)))
                        .stream())
                .toList();
    }

    private PlaceDifference difference(Place from, Place to) {
        Optional<Versions.Version> left = places.live(from);
        Optional<Versions.Version> right = places.live(to);
        Environments.PlaceSettings before = environments.settings(from.id(), from.settingsRevision());
        Environments.PlaceSettings after = environments.settings(to.id(), to.settingsRevision());
        List<String> names = left.or(() -> right).flatMap(Versions.Version::recipe).map(recipe -> recipe.secrets())
                .orElse(List.of());
        List<String> missingFrom = secrets.missing(names, from.componentId(), from.environmentId());
        List<String> missingTo = secrets.missing(names, to.componentId(), to.environmentId());
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

package dev.paseo.service.comparison;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
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

    private final Comparisons comparisons;
    private final Components components;
    private final Versions versions;
    private final EnvironmentDifferences differences;

    ComparisonController(Comparisons comparisons, Components components, Versions versions,
            EnvironmentDifferences differences) {
        this.comparisons = comparisons;
        this.components = components;
        this.versions = versions;
        this.differences = differences;
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
    List<EnvironmentDifferences.PlaceDifference> environments(@AuthenticationPrincipal Person person,
            @RequestParam String from, @RequestParam String to, @RequestParam(defaultValue = "") String component) {
        Permission.require(person, Action.LOOK);
        return differences.between(from, to, component);
    }
}

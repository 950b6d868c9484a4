package dev.paseo.service.comparison;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.run.Run;
import dev.paseo.service.run.Runs;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What differs between two runs. */
@RestController
@RequestMapping("/api/v1/runs")
class RunComparisonController {

    private final Runs runs;
    private final RunComparison comparison;

    RunComparisonController(Runs runs, RunComparison comparison) {
        this.runs = runs;
        this.comparison = comparison;
    }

    /** What changed since another run of the component. */
    @GetMapping("/{component}/{number}/comparison")
    RunComparison.RunComparisonView compare(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable long number, @RequestParam long with) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        Run before = runs.numbered(component, with);
        return comparison.compare(before, runs.numbered(component, number));
    }
}

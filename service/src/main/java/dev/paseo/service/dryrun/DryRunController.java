package dev.paseo.service.dryrun;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.language.Problem;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.EnvironmentChecks;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What would have happened under other rules. */
@RestController
@RequestMapping("/api/v1/environments")
class DryRunController {

    private static final int USUAL = 90;
    private static final int LONGEST = 365;

    /**
     * The text of an environments file, and how far to look back.
     *
     * @param days 1 to 365; without: 90
     */
    record DryRunRequest(@Size(max = 1_000_000) String text, Optional<Integer> days) {}

    /** @param environments those of the file whose gates would change and that are there already */
    record DryRunView(Instant since, Instant until, List<DryRuns.EnvironmentDryRunView> environments) {}

    private final EnvironmentChecks checks;
    private final DryRuns dryRuns;
    private final ServiceClock clock;

    DryRunController(EnvironmentChecks checks, DryRuns dryRuns, ServiceClock clock) {
        this.checks = checks;
        this.dryRuns = dryRuns;
        this.clock = clock;
    }

    /**
     * Holds the gates of an environments file against what went through them lately, or ended at them: what would have
     * been stopped, would have waited longer, or would have been let through. Changes nothing. Judged is what the file
     * asks more than the rules in force, or less, at the moment at which it went through or ended: on what had been
     * said, passed and lived through by then, on the members that groups have now, and on the evidence that there is
     * now. Hours and length of life are judged at that moment; holds, closures and calendars are not.
     */
    @PostMapping("/dry-run")
    DryRunView dryRun(@AuthenticationPrincipal Person person, @RequestBody DryRunRequest request) {
        Permission.require(person, Action.LOOK);
        Duration length = lookingBack(request.days());
        EnvironmentChecks.Checked checked = checks.check(request.text());
        if (checked.file().isEmpty()) {
            throw Refusal.unprocessable("The environments file has problems",
                    checked.problems().stream().map(Problem::toString).collect(Collectors.joining("\n")));
        }
        Instant now = clock.now();
        Instant since = now.minus(length);
        return new DryRunView(since, now, dryRuns.of(checked.file().get(), since, person));
    }

    /** How far is looked back. */
    static Duration lookingBack(Optional<Integer> asked) {
        int days = asked.orElse(USUAL);
        if (days < 1 || days > LONGEST) {
            throw Refusal.invalid("/days", "should be from 1 to " + LONGEST);
        }
        return Duration.ofDays(days);
    }
}

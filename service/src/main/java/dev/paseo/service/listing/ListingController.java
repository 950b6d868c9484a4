package dev.paseo.service.listing;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.run.RunStatus;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.problem.Worded;
import java.time.Instant;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class ListingController {

    private final Listing listing;

    ListingController(Listing listing) {
        this.listing = listing;
    }

    /**
     * Runs of all components, the newest first, or the oldest.
     *
     * @param newest only the newest run of each main branch
     * @param after  the oldest first, those after this number; 0 from the very oldest on; not beside before
     * @param limit  at most so many, 1 to 200
     */
    @GetMapping("/runs")
    Listing.RunList runs(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<String> branch,
            @RequestParam Optional<String> status, @RequestParam Optional<String> author,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            @RequestParam(defaultValue = "false") boolean newest, @RequestParam Optional<Long> before,
            @RequestParam Optional<Long> after,
            @RequestParam(defaultValue = "50") int limit) {
        Permission.require(person, Action.LOOK, component, Optional.empty());
        Optional<RunStatus> wanted = status.map(word -> Worded.read(RunStatus.class, "/status", word));
        return listing.runs(new Listing.Asked(component, label, branch, since, until, Cursor.of(before, after), limit),
                wanted, author,
                newest);
    }

    /**
     * Versions of all components, the newest first, or the oldest.
     *
     * @param environment only what is live there now
     * @param blocked     only what is blocked, or only what is not
     * @param after       the oldest first, those after this number; 0 from the very oldest on; not beside before
     * @param limit       at most so many, 1 to 200
     */
    @GetMapping("/versions")
    Listing.VersionList versions(@AuthenticationPrincipal Person person, @RequestParam Optional<String> component,
            @RequestParam Optional<String> label, @RequestParam Optional<String> branch,
            @RequestParam Optional<String> environment, @RequestParam Optional<Boolean> blocked,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            @RequestParam Optional<Long> before, @RequestParam Optional<Long> after,
            @RequestParam(defaultValue = "50") int limit) {
        Permission.require(person, Action.LOOK, component, Optional.empty());
        return listing.versions(
                new Listing.Asked(component, label, branch, since, until, Cursor.of(before, after), limit), environment,
                blocked);
    }
}

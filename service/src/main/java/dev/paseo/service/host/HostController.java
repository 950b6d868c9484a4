package dev.paseo.service.host;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Hosts, closures of environments, blocks of versions. */
@RestController
@RequestMapping("/api/v1")
class HostController {

    /** A host; {@code agent} is its own, {@code servedBy} the one that reaches it otherwise. Sizes in bytes. */
    record KnownHostView(String name, Optional<String> agent, Optional<String> servedBy, Optional<Instant> lastContact,
            Optional<String> maintenance,
            Optional<Instant> maintenanceSince, Optional<Long> diskFree, Optional<Long> diskTotal) {}

    record MaintenanceRequest(String reason) {}

    /** @param until when it opens by itself */
    record ClosureRequest(String reason, Optional<Instant> until) {}

    record BlockRequest(String reason) {}

    private final HostReports reports;
    private final Holds holds;
    private final Maintenance maintenance;
    private final Lookups lookups;

    /** How names become things. */
    @org.springframework.stereotype.Component("hostLookups")
    record Lookups(Environments environments, Components components, Versions versions) {}

    HostController(HostReports reports, Holds holds, Maintenance maintenance, Lookups lookups) {
        this.reports = reports;
        this.holds = holds;
        this.maintenance = maintenance;
        this.lookups = lookups;
    }

    /** Lists all hosts: agent, disk, maintenance. */
    @GetMapping("/hosts")
    List<KnownHostView> hosts(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return reports.hosts().stream()
                .map(row -> new KnownHostView(row.name(), Optional.ofNullable(row.agent()),
                        Optional.ofNullable(row.servedBy()),
                        Optional.ofNullable(row.lastContact()), Optional.ofNullable(row.maintenance()),
                        Optional.ofNullable(row.maintenanceSince()),
                        Optional.ofNullable(row.diskFree()), Optional.ofNullable(row.diskTotal())))
                .toList();
    }

    /** Deployments leave the host out until its maintenance ends; then it catches up. */
    @PutMapping("/hosts/{name}/maintenance")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void maintenance(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody MaintenanceRequest request) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "put " + name + " into maintenance");
        if (request.reason().isBlank()) {
            throw Refusal.invalid("/reason", "Say why " + name + " is in maintenance");
        }
        maintenance.begin(name, request.reason().strip(), person.name());
    }

    /** Ends the maintenance of a host; it catches up with what is live. */
    @DeleteMapping("/hosts/{name}/maintenance")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void maintenanceEnds(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "end the maintenance of " + name);
        maintenance.end(name, person.name());
    }

    /** Closes an environment to every deployment but rollbacks, until a time or until it is opened. */
    @PutMapping("/environments/{name}/closure")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void close(@AuthenticationPrincipal Person person, @PathVariable String name, @RequestBody ClosureRequest request) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "close " + name, Optional.empty(), Optional.of(name));
        holds.close(lookups.environments().named(name), person, request.reason(), request.until());
    }

    /** Opens a closed environment. */
    @DeleteMapping("/environments/{name}/closure")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void open(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam(defaultValue = "") String reason) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "open " + name, Optional.empty(), Optional.of(name));
        holds.open(lookups.environments().named(name), person, reason);
    }

    /** Blocks a version: it can be deployed nowhere, not even by rollback or emergency. */
    @PutMapping("/versions/{component}/{number}/block")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void block(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @RequestBody BlockRequest request) {
        Permission.require(person, Action.PROMOTE, "block " + component + " " + number, Optional.of(component),
                Optional.empty());
        holds.block(lookups.versions().numbered(lookups.components().named(component).id(), component, number), person,
                request.reason());
    }

    /** Lifts the block of a version. */
    @DeleteMapping("/versions/{component}/{number}/block")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void liftBlock(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @RequestParam(defaultValue = "") String reason) {
        Permission.require(person, Action.LIFT_BLOCK, "lift the block of " + component + " " + number,
                Optional.of(component), Optional.empty());
        holds.liftBlock(lookups.versions().numbered(lookups.components().named(component).id(), component, number),
                person, reason);
    }
}

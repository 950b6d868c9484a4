package dev.paseo.service.host;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
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
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Hosts, and their maintenance. */
@RestController
@RequestMapping("/api/v1")
class HostController {

    /** A host; {@code agent} is its own, {@code servedBy} the one that reaches it otherwise. Sizes in bytes. */
    record KnownHostView(String name, Optional<String> agent, Optional<String> servedBy, Optional<Instant> lastContact,
            Optional<String> maintenance,
            Optional<Instant> maintenanceSince, Optional<Long> diskFree, Optional<Long> diskTotal) {}

    record MaintenanceRequest(String reason) {}

    private final HostReports reports;
    private final Maintenance maintenance;

    HostController(HostReports reports, Maintenance maintenance) {
        this.reports = reports;
        this.maintenance = maintenance;
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

    /** Puts a host into maintenance: deployments leave it out until it ends; then it catches up. */
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
}

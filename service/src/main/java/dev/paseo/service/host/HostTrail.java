package dev.paseo.service.host;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments;
import org.springframework.stereotype.Component;

/** Writes down, and tells those who look, what became of a host. */
@Component
class HostTrail {

    private final Environments environments;
    private final Changes changes;

    HostTrail(Environments environments, Changes changes) {
        this.environments = environments;
        this.changes = changes;
    }

    void record(long place, String host, String what, String why) {
        Environments.Place where = environments.placeById(place);
        changes.record(AuditTrail.Entry.of(host, what, where.component()).in(where.environment()).because(why));
        changes.publish("whereabouts", where.component());
    }
}

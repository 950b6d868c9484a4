package dev.paseo.service.host;

import dev.paseo.service.change.Changes;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.language.NearestName;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Hosts in maintenance: deployments leave them out, another acts in their place, and they catch up when it ends. */
@Component
class Maintenance {

    private final HostReportMapper mapper;
    private final Environments environments;
    private final Places places;
    private final WorkBoard board;
    private final Changes changes;

    Maintenance(HostReportMapper mapper, Environments environments, Places places, WorkBoard board, Changes changes) {
        this.mapper = mapper;
        this.environments = environments;
        this.places = places;
        this.board = board;
        this.changes = changes;
    }

    void begin(String name, String reason, String by) {
        long host = change(name, Optional.of(reason), by);
        mapper.places(host).forEach(each -> places.change(each, place -> {
            board.offerElsewhere(place.id(), host, environments.acting(place).id());
            return Optional.of(
                    new PlaceEvent.HostAway(name, "in maintenance: " + reason, board.installOffered(place.id(), host)));
        }));
    }

    void end(String name, String by) {
        change(name, Optional.empty(), by);
    }

    private long change(String name, Optional<String> reason, String by) {
        long host = mapper.host(name).orElseThrow(() -> Refusal.notFound("There is no host " + name
                + NearestName.hint(name, mapper.hosts().stream().map(HostReportMapper.HostRow::name).toList())));
        changes.run(() -> {
            mapper.maintenance(host, reason.orElse(null), reason.map(why -> changes.now()).orElse(null));
            changes.record(AuditTrail.Entry
                    .of(by, reason.isPresent() ? "maintenance begun" : "maintenance ended", name)
                    .because(reason.orElse("")));
            changes.publish("whereabouts", "all");
        });
        return host;
    }
}

package dev.paseo.service.place;

import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What people approved, and what hosts are given, is written down as it is when a deployment begins. */
@Component
class Beginnings {

    private final DeploymentMapper mapper;
    private final AtGates atGates;
    private final Gates gates;
    private final Secrets secrets;
    private final SetMembership sets;
    private final Json json;

    Beginnings(DeploymentMapper mapper, AtGates atGates, Gates gates, Secrets secrets, SetMembership sets,
            Json json) {
        this.mapper = mapper;
        this.atGates = atGates;
        this.gates = gates;
        this.secrets = secrets;
        this.sets = sets;
        this.json = json;
    }

    void begins(Place place, Deployment row) {
        Gates.AtGate at = atGates.of(place, row);
        List<String> names = at.version().recipe().map(recipe -> recipe.secrets()).orElse(List.of());
        Map<String, Long> revisions = secrets.revisionsWithHosts(names, place.componentId(), place.environmentId());
        mapper.begins(row.id(), gates.digest(at), place.settingsRevision(), json.write(revisions));
        at.set().filter(Gates.InSet::first)
                .ifPresent(set -> sets.approved(Objects.requireNonNull(row.promotionId()),
                        json.write(set.others().stream()
                                .collect(Collectors.toMap(other -> other.version().component(),
                                        other -> gates.subject(AtGates.alone(other)))))));
    }
}

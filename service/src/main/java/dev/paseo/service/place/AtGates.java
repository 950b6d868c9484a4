package dev.paseo.service.place;

import dev.paseo.core.deployment.Kind;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Deployments as they stand at the gate before a place, alone or as a set. */
@Component
class AtGates {

    private final PlaceRepository repository;
    private final Versions versions;
    private final Environments environments;
    private final SetMembership sets;
    private final ServiceClock clock;

    AtGates(PlaceRepository repository, Versions versions, Environments environments, SetMembership sets,
            ServiceClock clock) {
        this.repository = repository;
        this.versions = versions;
        this.environments = environments;
        this.sets = sets;
        this.clock = clock;
    }

    Gates.AtGate of(Place place, Deployment row) {
        return new Gates.AtGate(Gates.Standing.ofDeployment(row.id()), place,
                environments.of(place), versions.byId(row.versionId()),
                repository.version(place),
                Optional.ofNullable(row.requestedBy()).orElse(""), row.requestedAt(), row.kind(), ofSet(place, row));
    }

    /** The same as if it were of no set. */
    static Gates.AtGate alone(Gates.AtGate at) {
        return new Gates.AtGate(at.standing(), at.place(), at.environment(), at.version(), at.live(),
                at.requester(), at.requestedAt(), at.kind(), Optional.empty());
    }

    Gates.AtGate proposed(Place place, Versions.Version version, String requester) {
        return new Gates.AtGate(Gates.Standing.ofDeployment(0), place, environments.of(place),
                version, repository.version(place), requester, clock.now(), Kind.PROMOTION, Optional.empty());
    }

    /** Where it is of a set: the first stands at the gate for all of them, the others follow without one. */
    Optional<Gates.InSet> ofSet(Place place, Deployment row) {
        return Optional.ofNullable(row.promotionId()).map(id -> {
            List<Long> members = sets.members(id);
            Environments.Environment environment = environments.of(place);
            List<Gates.AtGate> alone = members.stream().map(version -> {
                Versions.Version member = versions.byId(version);
                Place there = environments.place(member.component(), place.environment());
                return new Gates.AtGate(Gates.Standing.ofDeployment(row.id()), there, environment, member,
                        repository.version(there),
                        Optional.ofNullable(row.requestedBy()).orElse(""), row.requestedAt(), Kind.PROMOTION,
                        Optional.empty());
            }).toList();
            List<Gates.AtGate> others = alone.stream().filter(each -> each.version().id() != row.versionId())
                    .map(each -> each.with(alone.stream().filter(beside -> beside != each).toList())).toList();
            return new Gates.InSet(members.getFirst() == row.versionId(), others);
        });
    }
}

package dev.paseo.service.gate;

import dev.paseo.core.gate.GateFacts;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.version.Versions;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Who may decide at a gate, and who may not because they wrote what stands there. */
@Component
class PeopleAtGates {

    private final GateDecisionMapper mapper;
    private final Accounts accounts;
    private final Authorship authorship;
    private final ServiceClock clock;

    PeopleAtGates(GateDecisionMapper mapper, Accounts accounts, Authorship authorship, ServiceClock clock) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.authorship = authorship;
        this.clock = clock;
    }

    /** Those of all members where a set stands at the gate: nobody decides about what they wrote themselves. */
    Authorship.Behind behind(Gates.AtGate at) {
        return at.set().stream().flatMap(set -> set.others().stream()).map(this::behindOne).reduce(behindOne(at),
                Authorship.Behind::and);
    }

    private Authorship.Behind behindOne(Gates.AtGate at) {
        Versions.Version version = at.version();
        return version.commit()
                .map(commit -> authorship
                        .behind(version.componentId(), at.live().flatMap(Versions.Version::commit), commit)
                        .orElseThrow(Gates.AuthorsUnknown::new))
                .orElseGet(() -> authorship.stated(version.id()));
    }

    /** The members of these groups, and who stands in for whom. */
    GateFacts.People people(Gates.AtGate at, Set<String> named) {
        Map<String, Set<String>> standIns = new HashMap<>();
        mapper.standIns(at.standing().deployment(), clock.now())
                .forEach(row -> standIns.computeIfAbsent(row.deputy(), name -> new HashSet<>()).add(row.principal()));
        return new GateFacts.People(accounts.meant(named), standIns);
    }
}

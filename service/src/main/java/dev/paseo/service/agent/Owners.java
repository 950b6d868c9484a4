package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Finds whoever a piece of work belongs to. */
@Component
class Owners {

    private final Map<Assignment.Kind, WorkOwner> byKind = new EnumMap<>(Assignment.Kind.class);

    Owners(List<WorkOwner> owners) {
        owners.forEach(owner -> owner.kinds().forEach(kind -> byKind.put(kind, owner)));
    }

    WorkOwner of(Work work) {
        return byKind.get(Assignment.Kind.valueOf(work.kind()));
    }
}

package dev.paseo.service.gate;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Decisions as the trail states them: who decided what about a deployment or a passage, in whose place, about which
 * subject, and whether it was taken back.
 */
@Component
class GateDecisionStates implements Guarded {

    private static final String KIND = "rulings";

    private final GateDecisionMapper mapper;

    GateDecisionStates(GateDecisionMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.states(null, null).stream()
                .collect(Collectors.toMap(row -> KIND + " of " + row.subject(),
                        GateDecisionMapper.GateDecisionsRow::text));
    }

    /** The entry of a decision, with how the decisions are after it. */
    static AuditTrail.Entry into(AuditTrail.Entry entry, Gates.Standing at, GateDecisionMapper mapper) {
        GateDecisionMapper.GateDecisionsRow row = mapper.states(at.deployment(), at.passage()).getFirst();
        return entry.stating(KIND + " of " + row.subject(), row.text());
    }
}

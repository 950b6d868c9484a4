package dev.paseo.service.restraint;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * What restrains deployments, as the trail states it: holds of places, closures of environments, blocks of versions; by
 * their numbers.
 */
@Component
class RestraintStates implements Guarded {

    private static final String KIND = "restraint";
    static final String HOLD = KIND + " of place ";
    static final String CLOSURE = KIND + " of environment ";
    static final String BLOCK = KIND + " of version ";

    private final RestraintMapper mapper;

    RestraintStates(RestraintMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.states().stream()
                .collect(Collectors.toMap(RestraintMapper.StateRow::subject, RestraintMapper.StateRow::text));
    }

    /** The entry of a change, with what restrains afterwards. */
    static AuditTrail.Entry into(AuditTrail.Entry entry, String kind, long id, RestraintMapper mapper) {
        Optional<RestraintMapper.StateRow> now = mapper.state(kind + id);
        return now.map(row -> entry.stating(row.subject(), row.text())).orElseGet(() -> entry.gone(kind + id));
    }
}

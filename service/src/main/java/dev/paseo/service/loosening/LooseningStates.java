package dev.paseo.service.loosening;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Loosenings that wait, as the trail states them: what each would change, and who said what about it. */
@Component
class LooseningStates implements Guarded {

    private static final String KIND = "loosening";

    private final WantedMapper mapper;

    LooseningStates(WantedMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.states(null).stream()
                .collect(Collectors.toMap(row -> subject(row.id()), WantedMapper.StateRow::text));
    }

    private static String subject(long id) {
        return KIND + " " + id;
    }

    static AuditTrail.Entry into(AuditTrail.Entry entry, long id, WantedMapper mapper) {
        return entry.stating(subject(id), mapper.states(id).getFirst().text());
    }
}

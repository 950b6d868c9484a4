package dev.paseo.service.environment;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** An environment's rules in force, as the trail states them; by the environment's number. */
@Component
class RulesStates implements Guarded {

    private static final String KIND = "rules";

    private final EnvironmentMapper mapper;

    RulesStates(EnvironmentMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    /** Those that were never set are of no account. */
    @Override
    public Map<String, String> states() {
        return mapper.rulesInForce().stream()
                .collect(Collectors.toMap(row -> subject(row.id()), row -> text(row.rules(), row.rulesRevision())));
    }

    private static String subject(long environment) {
        return KIND + " of environment " + environment;
    }

    private static String text(String rules, long revision) {
        return revision + "\n" + rules;
    }

    static AuditTrail.Entry into(AuditTrail.Entry entry, long environment, String rules, long revision) {
        return entry.stating(subject(environment), text(rules, revision));
    }
}

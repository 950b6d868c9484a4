package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.loosening.Loosenings;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** What a file loosens: whom the rules in force ask before, and what is reviewed because nobody was asked. */
@Component
class RulesLoosened {

    private final EnvironmentMapper mapper;
    private final StoredRules stored;
    private final Loosenings loosenings;
    private final Changes changes;

    RulesLoosened(EnvironmentMapper mapper, StoredRules stored, Loosenings loosenings, Changes changes) {
        this.mapper = mapper;
        this.stored = stored;
        this.loosenings = loosenings;
        this.changes = changes;
    }

    /** Where nobody agreed to it, what goes live under it is reviewed. */
    void loosened(EnvironmentChecks.Change change, boolean agreed, Loading.Meant meant, Person by) {
        changes.record(AuditTrail.Entry.of(by.name(), "rules loosened", change.environment())
                .in(change.environment()).because(change.what()).with("agreed by", meant.agreedBy().orElse("")));
        if (!agreed) {
            loosenings.ofEnvironment(mapper.named(change.environment()).orElseThrow().id(),
                    "the rules of " + change.environment() + ": " + change.what(), by.name());
        }
    }

    /** Whom the rules that are in force ask before they are loosened. */
    Map<String, List<String>> asked(List<EnvironmentChecks.Change> loosens) {
        Map<String, List<String>> asked = new LinkedHashMap<>();
        loosens.forEach(
                each -> mapper.named(each.environment()).flatMap(row -> stored.read(row.rules()).toLoosen())
                        .ifPresent(names -> asked.put(each.environment(), names)));
        return asked;
    }
}

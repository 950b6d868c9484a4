package dev.paseo.service.component;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Which branches of a component are trusted and allowed, as the trail states it; by the component's number, which no
 * renaming changes.
 */
@Component
class BranchStates implements Guarded {

    private static final String KIND = "branches";

    private final ComponentMapper mapper;

    BranchStates(ComponentMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.retiredToo().stream()
                .collect(Collectors.toMap(row -> subject(row.id()), row -> text(row.id(), mapper)));
    }

    private static String subject(long component) {
        return KIND + " of component " + component;
    }

    private static String text(long component, ComponentMapper mapper) {
        return mapper.rules(component).stream().map(rule -> (rule.trusted() ? "trusted " : "allowed ") + rule.pattern())
                .sorted().collect(Collectors.joining("\n"));
    }

    static AuditTrail.Entry into(AuditTrail.Entry entry, long component, ComponentMapper mapper) {
        return entry.stating(subject(component), text(component, mapper));
    }
}

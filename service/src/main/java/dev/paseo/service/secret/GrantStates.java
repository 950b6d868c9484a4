package dev.paseo.service.secret;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Which secrets a component's files may name, as the trail states it; by the component's number. */
@Component
class GrantStates implements Guarded {

    private static final String KIND = "grants";

    private final SecretMapper mapper;

    GrantStates(SecretMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.components().stream()
                .collect(Collectors.toMap(GrantStates::subject, component -> text(component, mapper)));
    }

    private static String subject(long component) {
        return KIND + " of component " + component;
    }

    private static String text(long component, SecretMapper mapper) {
        return mapper.given(component).stream().sorted().collect(Collectors.joining("\n"));
    }

    static AuditTrail.Entry into(AuditTrail.Entry entry, long component, SecretMapper mapper) {
        return entry.stating(subject(component), text(component, mapper));
    }
}

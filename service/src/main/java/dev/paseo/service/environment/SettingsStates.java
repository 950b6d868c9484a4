package dev.paseo.service.environment;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * The settings in force of places that stay, as the trail states them: variables, addresses, hosts and sides; by the
 * place's number.
 */
@Component
class SettingsStates implements Guarded {

    private static final String KIND = "settings";

    private final EnvironmentMapper mapper;

    SettingsStates(EnvironmentMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.settingsInForce(null).stream()
                .collect(Collectors.toMap(row -> subject(row.place()), EnvironmentMapper.SettingsRow::text));
    }

    private static String subject(long place) {
        return KIND + " of place " + place;
    }

    static AuditTrail.Entry into(AuditTrail.Entry entry, long place, EnvironmentMapper mapper) {
        return mapper.settingsInForce(place).stream().findFirst().map(row -> entry.stating(subject(place), row.text()))
                .orElse(entry);
    }
}

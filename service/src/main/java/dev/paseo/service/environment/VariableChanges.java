package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.language.NearestName;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Sets a variable of a place, or of one of its hosts, beside the file. */
@Component
class VariableChanges {

    /** One variable, of one host where it is named; taken away where it has no value. */
    record Variable(String name, Optional<String> value, Optional<String> host) {}

    private final EnvironmentMapper mapper;
    private final Changes changes;
    private final Json json;

    VariableChanges(EnvironmentMapper mapper, Changes changes, Json json) {
        this.mapper = mapper;
        this.changes = changes;
        this.json = json;
    }

    /** @throws Refusal not found where the place has no such host */
    void set(Environments.Place place, Variable wanted, Person by) {
        changes.run(() -> {
            mapper.lockPlace(place.id());
            EnvironmentMapper.PlaceRow now = mapper.placeById(place.id());
            Environments.PlaceSettings before = json.read(
                    mapper.settings(now.id(), now.settingsRevision()).orElseThrow(),
                    Environments.PlaceSettings.class);
            wanted.host().filter(host -> !before.hosts().containsKey(host)).ifPresent(host -> {
                throw Refusal.notFound(place.component() + " has no host " + host + " in " + place.environment()
                        + NearestName.hint(host, List.copyOf(before.hosts().keySet())));
            });
            Map<String, String> variables = new LinkedHashMap<>(before.variables());
            Map<String, Environments.HostSettings> hosts = new LinkedHashMap<>(before.hosts());
            wanted.host().ifPresentOrElse(host -> hosts.computeIfPresent(host, (name, own) -> {
                Map<String, String> changed = new LinkedHashMap<>(own.variables());
                put(changed, wanted);
                return new Environments.HostSettings(own.url(), changed, own.side(), own.ssh());
            }), () -> put(variables, wanted));
            String body = json.write(
                    new Environments.PlaceSettings(1, before.url(), variables, hosts, before.secrets(),
                            before.acting()));
            mapper.addSettings(now.id(), now.settingsRevision() + 1, body, by.id(), changes.now());
            mapper.changePlace(now.id(), before.url().orElse(null), before.acting().orElse(null),
                    now.settingsRevision() + 1, changes.now());
            changes
                    .record(SettingsStates.into(AuditTrail.Entry
                            .of(by.name(), wanted.value().isPresent() ? "variable set" : "variable taken away",
                                    place.component())
                            .in(place.environment())
                            .with("name", wanted.name()).with("value", wanted.value().orElse(""))
                            .with("host", wanted.host().orElse("")), place.id(), mapper));
            changes.publish("environment", place.environment());
        });
    }

    private static void put(Map<String, String> variables, Variable wanted) {
        wanted.value().ifPresentOrElse(value -> variables.put(wanted.name(), value),
                () -> variables.remove(wanted.name()));
    }
}

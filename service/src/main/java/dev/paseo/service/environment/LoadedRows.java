package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Rules;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.EnvironmentMapper.EnvironmentRow;
import dev.paseo.service.environment.EnvironmentMapper.PlaceSettingsRow;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Writes what an environments file says into rows; what differs gets a new revision. */
@Component
class LoadedRows {

    private final EnvironmentMapper mapper;
    private final Components components;
    private final StoredRules stored;
    private final Changes changes;
    private final Json json;

    LoadedRows(EnvironmentMapper mapper, Components components, StoredRules stored, Changes changes, Json json) {
        this.mapper = mapper;
        this.components = components;
        this.stored = stored;
        this.changes = changes;
        this.json = json;
    }

    /** In the transaction that loads the file. */
    void load(EnvironmentsFile file, Person by) {
        List<String> there = mapper.all().stream().map(EnvironmentRow::name).toList();
        // The order is the file's where it has all of them; else what is there keeps its place, and new ones come
        // last.
        boolean whole = file.environments().stream().map(EnvironmentsFile.Environment::name).toList()
                .containsAll(there);
        for (int at = 0; at < file.environments().size(); at++) {
            EnvironmentsFile.Environment environment = file.environments().get(at);
            load(environment, whole ? at
                    : there.contains(environment.name()) ? there.indexOf(environment.name()) : there.size() + at,
                    by);
        }
        file.previews().forEach(template -> loadTemplate(template, by));
    }

    private void loadTemplate(EnvironmentsFile.Template template, Person by) {
        mapper.addTemporary(template.name(), "UTC", stored.write(Rules.NONE));
        long environment = mapper.lock(template.name()).orElseThrow();
        mapper.keepTemplate(environment, json.write(template), by.id(), changes.now());
        changes.record(AuditTrail.Entry.of(by.name(), "preview template set", template.name())
                .in(template.name()).with("template", json.write(template)));
    }

    private void load(EnvironmentsFile.Environment wanted, int position, Person by) {
        if (mapper.lock(wanted.name()).isEmpty()) {
            mapper.add(wanted.name(), position, wanted.zone());
        }
        EnvironmentRow row = mapper.named(wanted.name()).orElseThrow();
        Instant now = changes.now();
        String rules = stored.write(wanted.rules());
        long revision = row.rulesRevision();
        if (revision == 0 || !stored.read(row.rules()).equals(wanted.rules())) {
            revision++;
            mapper.addRules(row.id(), revision, rules, by.id(), now);
            changes
                    .record(RulesStates.into(
                            AuditTrail.Entry.of(by.name(), "rules set", wanted.name()).in(wanted.name())
                                    .with("revision", Long.toString(revision)).with("rules", rules),
                            row.id(), rules, revision));
            mapper.wake(row.id(), now);
            mapper.wakePassages(row.id(), now);
        }
        mapper.change(row.id(), position, wanted.zone(), revision == row.rulesRevision() ? row.rules() : rules,
                revision);
        Map<String, String> there = mapper.settingsIn(row.id()).stream()
                .collect(Collectors.toMap(PlaceSettingsRow::component, PlaceSettingsRow::settings));
        wanted.components().forEach((component, place) -> {
            String body = json.write(Loading.settings(place, Loading.variables(wanted, place)));
            String old = there.get(component);
            if (old == null || !Loading.asWrittenNow(old, json).equals(body)) {
                loadPlace(row.id(), wanted.name(), component, place, body, by);
            }
        });
        mapper.countHosts(row.id());
    }

    private void loadPlace(long environment, String environmentName, String component, EnvironmentsFile.Place wanted,
            String body, Person by) {
        mapper.addPlace(environment, components.named(component).id());
        EnvironmentMapper.PlaceRow place = mapper
                .placeById(mapper.lockPlace(mapper.place(component, environmentName).orElseThrow().id()));
        long revision = place.settingsRevision() + 1;
        mapper.addSettings(place.id(), revision, body, by.id(), changes.now());
        mapper.changePlace(place.id(), wanted.url().orElse(null), wanted.acting().orElse(null), revision,
                changes.now());
        mapper.clearHosts(place.id());
        int position = 0;
        for (Map.Entry<String, EnvironmentsFile.Host> host : wanted.hosts().entrySet()) {
            mapper.addHost(host.getKey());
            mapper.placeHost(place.id(), host.getKey(), position++, host.getValue().url().orElse(null),
                    host.getValue().side().orElse(null));
            host.getValue().ssh().ifPresent(ssh -> mapper.serve(host.getKey(), ssh.agent()));
        }
        changes
                .record(SettingsStates.into(AuditTrail.Entry.of(by.name(), "place set", component).in(environmentName)
                        .with("revision", Long.toString(revision)).with("settings", body), place.id(), mapper));
    }
}

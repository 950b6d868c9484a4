package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Criterion;
import dev.paseo.language.NearestName;
import dev.paseo.language.Reading;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.language.environment.EnvironmentsFileReader;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.environment.EnvironmentMapper.EnvironmentRow;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Loads environments files: all of a file in one transaction, or nothing of it. What changed gets a new revision. */
@Component
class Loading {

    private final EnvironmentMapper mapper;
    private final Components components;
    private final Accounts accounts;
    private final Json json;
    private final Around around;

    /** What every load leaves. */
    @Component
    record Around(Transactions transactions, ServiceClock clock, AuditTrail audit, Telling telling) {}

    Loading(EnvironmentMapper mapper, Components components, Accounts accounts, Json json, Around around) {
        this.mapper = mapper;
        this.components = components;
        this.accounts = accounts;
        this.json = json;
        this.around = around;
    }

    void load(String text, Person by) {
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read(text);
        List<String> problems = new ArrayList<>(reading.problems().stream().map(Object::toString).toList());
        reading.value().ifPresent(file -> problems.addAll(unknownNames(file)));
        if (!problems.isEmpty()) {
            throw Refusal.unprocessable("The environments file has problems", String.join("\n", problems));
        }
        EnvironmentsFile file = reading.value().orElseThrow();
        around.transactions().run(() -> {
            for (int at = 0; at < file.environments().size(); at++) {
                load(file.environments().get(at), at, by);
            }
            around.telling().tell("environment", "all");
        });
    }

    private List<String> unknownNames(EnvironmentsFile file) {
        List<String> problems = new ArrayList<>();
        List<String> known = components.all().stream().map(Components.Registered::name).toList();
        List<String> groups = accounts.groups();
        for (EnvironmentsFile.Environment environment : file.environments()) {
            environment.components().keySet().stream().filter(name -> !known.contains(name)).forEach(name ->
                    problems.add("environments." + environment.name() + ".components." + name + ": there is no component " + name
                            + NearestName.hint(name, known)));
            environment.approvals().filter(rule -> !groups.contains(rule.from())).ifPresent(rule ->
                    problems.add("environments." + environment.name() + ".entry.approvals.from: there is no group " + rule.from()
                            + NearestName.hint(rule.from(), groups)));
        }
        return problems;
    }

    private void load(EnvironmentsFile.Environment wanted, int position, Person by) {
        if (mapper.lock(wanted.name()).isEmpty()) {
            mapper.add(wanted.name(), position, wanted.zone());
        }
        EnvironmentRow row = mapper.named(wanted.name()).orElseThrow();
        Instant now = around.clock().now();
        String rules = json.write(rules(wanted));
        long revision = row.rulesRevision();
        if (revision == 0 || !json.write(json.read(row.rules(), Environments.Rules.class)).equals(rules)) {
            revision++;
            mapper.addRules(row.id(), revision, rules, by.id(), now);
            around.audit().record(AuditTrail.Entry.of(by.name(), "rules set", wanted.name()).in(wanted.name())
                    .with("revision", Long.toString(revision)).with("rules", rules));
            mapper.wake(row.id(), now);
        }
        mapper.change(row.id(), position, wanted.zone(), rules, revision);
        wanted.components().forEach((component, place) -> loadPlace(row.id(), wanted.name(), component, place, by));
    }

    private static Environments.Rules rules(EnvironmentsFile.Environment wanted) {
        return new Environments.Rules(1, wanted.follows(), wanted.branches(), wanted.approvals().map(rule -> new Criterion.Approvals(
                rule.from(), rule.count(), rule.notBy().stream().map(who -> Criterion.Exclusion.valueOf(who.toUpperCase(Locale.ROOT))).toList(),
                rule.commentRequired(), rule.within())));
    }

    private void loadPlace(long environment, String environmentName, String component, EnvironmentsFile.Place wanted, Person by) {
        mapper.addPlace(environment, components.named(component).id());
        EnvironmentMapper.PlaceRow place = mapper.place(component, environmentName).orElseThrow();
        mapper.lockPlace(place.id());
        Map<String, Environments.HostSettings> hosts = new LinkedHashMap<>();
        wanted.hosts().forEach((name, host) -> hosts.put(name, new Environments.HostSettings(host.url(), host.variables())));
        String body = json.write(new Environments.Settings(1, wanted.url(), wanted.variables(), hosts, wanted.secrets()));
        boolean same = mapper.settings(place.id(), place.settingsRevision())
                .map(old -> json.write(json.read(old, Environments.Settings.class)).equals(body)).orElse(false);
        if (same) {
            return;
        }
        long revision = place.settingsRevision() + 1;
        mapper.addSettings(place.id(), revision, body, by.id(), around.clock().now());
        mapper.changePlace(place.id(), wanted.url().orElse(null), revision, around.clock().now());
        mapper.clearHosts(place.id());
        int position = 0;
        for (Map.Entry<String, EnvironmentsFile.Host> host : wanted.hosts().entrySet()) {
            mapper.addHost(host.getKey());
            mapper.placeHost(place.id(), host.getKey(), position++, host.getValue().url().orElse(null));
        }
        around.audit().record(AuditTrail.Entry.of(by.name(), "place set", component).in(environmentName)
                .with("revision", Long.toString(revision)).with("settings", body));
    }
}

package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.GateRules;
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
import dev.paseo.service.settings.Settings;
import dev.paseo.service.source.SourceAccess;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
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
    record Around(Transactions transactions, ServiceClock clock, AuditTrail audit, Telling telling, StoredRules stored, Settings settings) {}

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
            file.previews().forEach(template -> loadTemplate(template, by));
            around.telling().tell("environment", "all");
        });
    }

    private void loadTemplate(EnvironmentsFile.Template template, Person by) {
        mapper.addTemporary(template.name(), "UTC", around.stored().write(Rules.NONE));
        long environment = mapper.lock(template.name()).orElseThrow();
        mapper.keepTemplate(environment, json.write(template), by.id(), around.clock().now());
        around.audit().record(AuditTrail.Entry.of(by.name(), "preview template set", template.name()).in(template.name()).with("template", json.write(template)));
    }

    private List<String> unknownNames(EnvironmentsFile file) {
        List<String> problems = new ArrayList<>();
        List<String> known = components.all().stream().map(Components.Registered::name).toList();
        List<String> people = new ArrayList<>(accounts.groups());
        people.addAll(accounts.names());
        for (EnvironmentsFile.Environment environment : file.environments()) {
            environment.components().keySet().stream().filter(name -> !known.contains(name)).forEach(name ->
                    problems.add("environments." + environment.name() + ".components." + name + ": there is no component " + name
                            + NearestName.hint(name, known)));
            problems.addAll(unknownPeople(environment, people));
            Stream.concat(Stream.of(environment.rules().gates()), environment.rules().components().values().stream()).flatMap(gates -> gates.entry().outside().stream())
                    .filter(outside -> around.settings().allowedReceivers().stream().noneMatch(allowed -> SourceAccess.beginsWith(outside.address(), allowed)))
                    .forEach(outside -> problems.add("environments." + environment.name() + ".entry.outside." + outside.name() + ": " + outside.address()
                            + " is not below an address that may be asked; an operator sets them in paseo.allowed-receivers"));
            List<String> agents = mapper.agents();
            environment.components().values().stream().flatMap(place -> place.hosts().values().stream()).flatMap(host -> host.ssh().stream())
                    .filter(ssh -> !agents.contains(ssh.agent())).forEach(ssh -> problems.add("environments." + environment.name()
                            + ": there is no agent " + ssh.agent() + NearestName.hint(ssh.agent(), agents)));
        }
        for (EnvironmentsFile.Template template : file.previews()) {
            if (!known.contains(template.component())) {
                problems.add("previews." + template.name() + ".component: there is no component " + template.component() + NearestName.hint(template.component(), known));
            }
        }
        return problems;
    }

    private static List<String> unknownPeople(EnvironmentsFile.Environment environment, List<String> people) {
        List<String> problems = new ArrayList<>();
        String where = "environments." + environment.name();
        problems.addAll(unknownPeople(environment.rules().gates().entry(), where + ".entry", people));
        problems.addAll(unknownPeople(environment.rules().gates().exit(), where + ".exit", people));
        problems.addAll(unknownPeople(environment.rules().rollback(), where + ".rollback", people));
        environment.rules().components().forEach((component, gates) -> {
            problems.addAll(unknownPeople(gates.entry(), where + ".components." + component + ".entry", people));
            problems.addAll(unknownPeople(gates.exit(), where + ".components." + component + ".exit", people));
        });
        return problems;
    }

    private static List<String> unknownPeople(GateRules gate, String where, List<String> people) {
        Map<String, List<String>> named = new LinkedHashMap<>();
        gate.approvals().forEach(rule -> {
            named.computeIfAbsent("approvals.from", key -> new ArrayList<>()).addAll(rule.from());
            rule.escalation().ifPresent(more -> named.computeIfAbsent("approvals.escalate.to", key -> new ArrayList<>()).add(more.to()));
        });
        gate.checklists().forEach(list -> named.computeIfAbsent("checklist.for", key -> new ArrayList<>()).addAll(list.from()));
        return named.entrySet().stream().flatMap(each -> each.getValue().stream().filter(name -> !people.contains(name))
                .map(name -> where + "." + each.getKey() + ": there is no group or account " + name + NearestName.hint(name, people))).toList();
    }

    private void load(EnvironmentsFile.Environment wanted, int position, Person by) {
        if (mapper.lock(wanted.name()).isEmpty()) {
            mapper.add(wanted.name(), position, wanted.zone());
        }
        EnvironmentRow row = mapper.named(wanted.name()).orElseThrow();
        Instant now = around.clock().now();
        String rules = around.stored().write(wanted.rules());
        long revision = row.rulesRevision();
        if (revision == 0 || !around.stored().read(row.rules()).equals(wanted.rules())) {
            revision++;
            mapper.addRules(row.id(), revision, rules, by.id(), now);
            around.audit().record(AuditTrail.Entry.of(by.name(), "rules set", wanted.name()).in(wanted.name())
                    .with("revision", Long.toString(revision)).with("rules", rules));
            mapper.wake(row.id(), now);
            mapper.wakePassages(row.id(), now);
        }
        mapper.change(row.id(), position, wanted.zone(), rules, revision);
        wanted.components().forEach((component, place) -> {
            Map<String, String> variables = new LinkedHashMap<>(wanted.variables());
            variables.putAll(place.variables());
            loadPlace(row.id(), wanted.name(), component, place, variables, by);
        });
        mapper.countHosts(row.id());
    }

    private void loadPlace(long environment, String environmentName, String component, EnvironmentsFile.Place wanted,
            Map<String, String> variables, Person by) {
        mapper.addPlace(environment, components.named(component).id());
        EnvironmentMapper.PlaceRow place = mapper.place(component, environmentName).orElseThrow();
        mapper.lockPlace(place.id());
        Map<String, Environments.HostSettings> hosts = new LinkedHashMap<>();
        wanted.hosts().forEach((name, host) -> hosts.put(name, new Environments.HostSettings(host.url(), host.variables(), host.side(),
                host.ssh().map(ssh -> new Environments.Ssh(ssh.address(), ssh.port(), ssh.user(), ssh.key(), ssh.hostKey(), ssh.folder())))));
        String body = json.write(new Environments.Settings(1, wanted.url(), variables, hosts, wanted.secrets(), wanted.acting()));
        boolean same = mapper.settings(place.id(), place.settingsRevision())
                .map(old -> json.write(json.read(old, Environments.Settings.class)).equals(body)).orElse(false);
        if (same) {
            return;
        }
        long revision = place.settingsRevision() + 1;
        mapper.addSettings(place.id(), revision, body, by.id(), around.clock().now());
        mapper.changePlace(place.id(), wanted.url().orElse(null), wanted.acting().orElse(null), revision, around.clock().now());
        mapper.clearHosts(place.id());
        int position = 0;
        for (Map.Entry<String, EnvironmentsFile.Host> host : wanted.hosts().entrySet()) {
            mapper.addHost(host.getKey());
            mapper.placeHost(place.id(), host.getKey(), position++, host.getValue().url().orElse(null), host.getValue().side().orElse(null));
            host.getValue().ssh().ifPresent(ssh -> mapper.serve(host.getKey(), ssh.agent()));
        }
        around.audit().record(AuditTrail.Entry.of(by.name(), "place set", component).in(environmentName)
                .with("revision", Long.toString(revision)).with("settings", body));
    }

    /** One variable, of one host where it is named; taken away where it has no value. */
    record Variable(String name, Optional<String> value, Optional<String> host) {}

    void variable(Environments.Place place, Variable wanted, Person by) {
        around.transactions().run(() -> {
            mapper.lockPlace(place.id());
            EnvironmentMapper.PlaceRow now = mapper.placeById(place.id());
            Environments.Settings before = json.read(mapper.settings(now.id(), now.settingsRevision()).orElseThrow(), Environments.Settings.class);
            wanted.host().filter(host -> !before.hosts().containsKey(host)).ifPresent(host -> {
                throw Refusal.notFound(place.component() + " has no host " + host + " in " + place.environment() + NearestName.hint(host, List.copyOf(before.hosts().keySet())));
            });
            Map<String, String> variables = new LinkedHashMap<>(before.variables());
            Map<String, Environments.HostSettings> hosts = new LinkedHashMap<>(before.hosts());
            wanted.host().ifPresentOrElse(host -> hosts.computeIfPresent(host, (name, own) -> {
                Map<String, String> changed = new LinkedHashMap<>(own.variables());
                put(changed, wanted);
                return new Environments.HostSettings(own.url(), changed, own.side(), own.ssh());
            }), () -> put(variables, wanted));
            String body = json.write(new Environments.Settings(1, before.url(), variables, hosts, before.secrets(), before.acting()));
            mapper.addSettings(now.id(), now.settingsRevision() + 1, body, by.id(), around.clock().now());
            mapper.changePlace(now.id(), before.url().orElse(null), before.acting().orElse(null), now.settingsRevision() + 1, around.clock().now());
            around.audit().record(AuditTrail.Entry.of(by.name(), wanted.value().isPresent() ? "variable set" : "variable taken away", place.component()).in(place.environment())
                    .with("name", wanted.name()).with("value", wanted.value().orElse("")).with("host", wanted.host().orElse("")));
            around.telling().tell("environment", place.environment());
        });
    }

    private static void put(Map<String, String> variables, Variable wanted) {
        wanted.value().ifPresentOrElse(value -> variables.put(wanted.name(), value), () -> variables.remove(wanted.name()));
    }
}

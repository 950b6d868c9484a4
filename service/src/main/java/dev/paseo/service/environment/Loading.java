package dev.paseo.service.environment;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Rules;
import dev.paseo.language.NearestName;
import dev.paseo.language.Problem;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.EnvironmentMapper.EnvironmentRow;
import dev.paseo.service.environment.EnvironmentMapper.PlaceSettingsRow;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Loads environments files: all of a file in one transaction, or nothing of it. What changed gets a new revision. */
@Component
class Loading {

    private final EnvironmentMapper mapper;
    private final Components components;
    private final EnvironmentChecks checks;
    private final Json json;
    private final Around around;

    /** What every load leaves. */
    @Component
    record Around(Changes changes, StoredRules stored, Exporting exporting, Loosenings loosenings,
            Agreements agreements) {}

    Loading(EnvironmentMapper mapper, Components components, EnvironmentChecks checks, Json json, Around around) {
        this.mapper = mapper;
        this.components = components;
        this.checks = checks;
        this.json = json;
        this.around = around;
    }

    /**
     * How a file is meant.
     *
     * @param base     the digest of what the text was made from: where that has changed meanwhile, nothing is loaded
     * @param loosen   what the file asks less than now is meant
     * @param agreedBy who agreed to what it loosens, where somebody was asked
     */
    record Meant(Optional<String> base, boolean loosen, Optional<String> agreedBy) {}

    /**
     * Loads all of a file.
     *
     * @return what should be changed in the file all the same
     */
    List<Problem> load(String text, Meant meant, Person by) {
        EnvironmentChecks.Checked checked = checks.check(text);
        if (!checked.problems().isEmpty()) {
            throw Refusal.unprocessable("The environments file has problems",
                    checked.problems().stream().map(Problem::toString).collect(Collectors.joining("\n")));
        }
        EnvironmentsFile file = checked.file().orElseThrow();
        if (meant.agreedBy().isEmpty()) {
            askSecond(text, file, meant, by);
        }
        around.changes().run(() -> {
            meant.base().ifPresent(this::unchanged);
            List<EnvironmentChecks.Change> loosens = checks.loosens(file);
            refuseUnmeant(loosens, meant.loosen());
            Map<String, List<String>> asked = asked(loosens);
            if (meant.agreedBy().isEmpty() && !asked.isEmpty()) {
                throw Refusal.conflict(
                        "Somebody changed the rules meanwhile: look at the difference, and load the file again");
            }
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
            loosens.forEach(each -> loosened(each, asked.containsKey(each.environment()), meant, by));
            around.changes().publish("environment", "all");
        });
        return checked.warnings();
    }

    /** Where nobody agreed to it, what goes live under it is reviewed. */
    private void loosened(EnvironmentChecks.Change change, boolean agreed, Meant meant, Person by) {
        around.changes().record(AuditTrail.Entry.of(by.name(), "rules loosened", change.environment())
                .in(change.environment()).because(change.what()).with("agreed by", meant.agreedBy().orElse("")));
        if (!agreed) {
            around.loosenings().ofEnvironment(mapper.named(change.environment()).orElseThrow().id(),
                    "the rules of " + change.environment() + ": " + change.what(), by.name());
        }
    }

    /** Whom the rules that are in force ask before they are loosened. */
    private Map<String, List<String>> asked(List<EnvironmentChecks.Change> loosens) {
        Map<String, List<String>> asked = new LinkedHashMap<>();
        loosens.forEach(
                each -> mapper.named(each.environment()).flatMap(row -> around.stored().read(row.rules()).toLoosen())
                        .ifPresent(names -> asked.put(each.environment(), names)));
        return asked;
    }

    private void askSecond(String text, EnvironmentsFile file, Meant meant, Person by) {
        List<EnvironmentChecks.Change> loosens = checks.loosens(file);
        refuseUnmeant(loosens, meant.loosen());
        String now = around.exporting().digest();
        if (meant.base().filter(base -> !base.equals(now)).isPresent()) {
            throw changed();
        }
        List<String> what = new ArrayList<>(
                loosens.stream().map(each -> each.environment() + " is loosened: " + each.what()).toList());
        checks.changes(file).forEach(each -> what.add(each.environment() + ": " + each.what()));
        around.agreements().ask(
                new Wanted(RulesCarrier.KIND, what, json.write(new RulesCarrier.File(text, now)), asked(loosens)), by);
    }

    private static Refusal changed() {
        return Refusal
                .conflict("The environments have changed since you began: look at the difference, and load it again");
    }

    private static void refuseUnmeant(List<EnvironmentChecks.Change> loosens, boolean loosen) {
        if (!loosens.isEmpty() && !loosen) {
            throw Refusal.conflict("Nothing was loaded, for the file loosens rules: "
                    + loosens.stream().map(each -> each.environment() + ": " + each.what())
                            .collect(Collectors.joining("; "))
                    + ". Say that this is meant: paseo environment load FILE --loosen, or “These are meant” in the "
                    + "console.");
        }
    }

    /** From here on until the transaction ends nobody else changes them. */
    private void unchanged(String base) {
        mapper.lockAll();
        mapper.lockPlaces();
        if (!base.equals(around.exporting().digest())) {
            throw changed();
        }
    }

    private void loadTemplate(EnvironmentsFile.Template template, Person by) {
        mapper.addTemporary(template.name(), "UTC", around.stored().write(Rules.NONE));
        long environment = mapper.lock(template.name()).orElseThrow();
        mapper.keepTemplate(environment, json.write(template), by.id(), around.changes().now());
        around.changes().record(AuditTrail.Entry.of(by.name(), "preview template set", template.name())
                .in(template.name()).with("template", json.write(template)));
    }

    private void load(EnvironmentsFile.Environment wanted, int position, Person by) {
        if (mapper.lock(wanted.name()).isEmpty()) {
            mapper.add(wanted.name(), position, wanted.zone());
        }
        EnvironmentRow row = mapper.named(wanted.name()).orElseThrow();
        Instant now = around.changes().now();
        String rules = around.stored().write(wanted.rules());
        long revision = row.rulesRevision();
        if (revision == 0 || !around.stored().read(row.rules()).equals(wanted.rules())) {
            revision++;
            mapper.addRules(row.id(), revision, rules, by.id(), now);
            around.changes()
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
            String body = json.write(settings(place, variables(wanted, place)));
            String old = there.get(component);
            if (old == null || !asWrittenNow(old, json).equals(body)) {
                loadPlace(row.id(), wanted.name(), component, place, body, by);
            }
        });
        mapper.countHosts(row.id());
    }

    /** Settings as they would be written now: those that an earlier release wrote may look otherwise. */
    static String asWrittenNow(String settings, Json json) {
        return json.write(json.read(settings, Environments.PlaceSettings.class));
    }

    private void loadPlace(long environment, String environmentName, String component, EnvironmentsFile.Place wanted,
            String body, Person by) {
        mapper.addPlace(environment, components.named(component).id());
        EnvironmentMapper.PlaceRow place = mapper
                .placeById(mapper.lockPlace(mapper.place(component, environmentName).orElseThrow().id()));
        long revision = place.settingsRevision() + 1;
        mapper.addSettings(place.id(), revision, body, by.id(), around.changes().now());
        mapper.changePlace(place.id(), wanted.url().orElse(null), wanted.acting().orElse(null), revision,
                around.changes().now());
        mapper.clearHosts(place.id());
        int position = 0;
        for (Map.Entry<String, EnvironmentsFile.Host> host : wanted.hosts().entrySet()) {
            mapper.addHost(host.getKey());
            mapper.placeHost(place.id(), host.getKey(), position++, host.getValue().url().orElse(null),
                    host.getValue().side().orElse(null));
            host.getValue().ssh().ifPresent(ssh -> mapper.serve(host.getKey(), ssh.agent()));
        }
        around.changes()
                .record(SettingsStates.into(AuditTrail.Entry.of(by.name(), "place set", component).in(environmentName)
                        .with("revision", Long.toString(revision)).with("settings", body), place.id(), mapper));
    }

    /** The settings of a place as a file says them; {@code variables} are those of the environment and the place. */
    static Environments.PlaceSettings settings(EnvironmentsFile.Place wanted, Map<String, String> variables) {
        Map<String, Environments.HostSettings> hosts = new LinkedHashMap<>();
        wanted.hosts()
                .forEach((name, host) -> hosts.put(name,
                        new Environments.HostSettings(host.url(), host.variables(), host.side(),
                                host.ssh().map(ssh -> new Environments.Ssh(ssh.address(), ssh.port(), ssh.user(),
                                        ssh.key(), ssh.hostKey(), ssh.folder())))));
        return new Environments.PlaceSettings(1, wanted.url(), variables, hosts, wanted.secrets(), wanted.acting());
    }

    /** The variables of a place: its own beat those of the environment. */
    static Map<String, String> variables(EnvironmentsFile.Environment environment, EnvironmentsFile.Place place) {
        Map<String, String> variables = new LinkedHashMap<>(environment.variables());
        variables.putAll(place.variables());
        return variables;
    }

    /** One variable, of one host where it is named; taken away where it has no value. */
    record Variable(String name, Optional<String> value, Optional<String> host) {}

    void variable(Environments.Place place, Variable wanted, Person by) {
        around.changes().run(() -> {
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
            mapper.addSettings(now.id(), now.settingsRevision() + 1, body, by.id(), around.changes().now());
            mapper.changePlace(now.id(), before.url().orElse(null), before.acting().orElse(null),
                    now.settingsRevision() + 1, around.changes().now());
            around.changes()
                    .record(SettingsStates.into(AuditTrail.Entry
                            .of(by.name(), wanted.value().isPresent() ? "variable set" : "variable taken away",
                                    place.component())
                            .in(place.environment())
                            .with("name", wanted.name()).with("value", wanted.value().orElse(""))
                            .with("host", wanted.host().orElse("")), place.id(), mapper));
            around.changes().publish("environment", place.environment());
        });
    }

    private static void put(Map<String, String> variables, Variable wanted) {
        wanted.value().ifPresentOrElse(value -> variables.put(wanted.name(), value),
                () -> variables.remove(wanted.name()));
    }
}

package dev.paseo.service.environment;

import dev.paseo.core.environment.Loosening;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.InWords;
import dev.paseo.language.NearestName;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.calendar.Periods;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.language.environment.EnvironmentsFileReader;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.EnvironmentMapper.EnvironmentRow;
import dev.paseo.service.environment.EnvironmentMapper.PlaceSettingsRow;
import dev.paseo.service.environment.EnvironmentMapper.ServedRow;
import dev.paseo.service.secret.Secrets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Checks an environments file against what is here, and says what loading it would change. */
@Component
public class EnvironmentChecks {

    /** What is wrong with a file; the file where nothing is, and what should be changed in it all the same. */
    public record Checked(Optional<EnvironmentsFile> file, List<Problem> problems, List<Problem> warnings) {}

    /** What loading a file would change in an environment, as a sentence. */
    record Change(String environment, String what) {}

    /**
     * What a gate of a file asks.
     *
     * @param component whose own gate it is; absent: the environment's
     * @param gate      as the file has it: to-enter, to-go-on, rollback
     */
    record GateInWords(String environment, Optional<String> component, String gate, List<String> sentences) {}

    private final EnvironmentMapper mapper;
    private final Components components;
    private final RulesChecks rulesChecks;
    private final StoredRules rules;
    private final Secrets secrets;
    private final Json json;

    EnvironmentChecks(EnvironmentMapper mapper, Components components, RulesChecks rulesChecks, StoredRules rules,
            Secrets secrets, Json json) {
        this.mapper = mapper;
        this.components = components;
        this.rulesChecks = rulesChecks;
        this.rules = rules;
        this.secrets = secrets;
        this.json = json;
    }

    /** What each gate asks that asks anything. */
    static List<GateInWords> inWords(EnvironmentsFile file) {
        List<GateInWords> said = new ArrayList<>();
        for (EnvironmentsFile.Environment environment : file.environments()) {
            Rules rules = environment.rules();
            gate(environment.name(), Optional.empty(), "to-enter", rules.gates().toEnter(), said);
            gate(environment.name(), Optional.empty(), "to-go-on", rules.gates().toGoOn(), said);
            gate(environment.name(), Optional.empty(), "rollback", rules.rollback(), said);
            rules.components().forEach((component, own) -> {
                gate(environment.name(), Optional.of(component), "to-enter", own.toEnter(), said);
                gate(environment.name(), Optional.of(component), "to-go-on", own.toGoOn(), said);
            });
        }
        return said;
    }

    private static void gate(String environment, Optional<String> component, String name, GateRules gate,
            List<GateInWords> said) {
        if (!gate.criteria().isEmpty()) {
            said.add(new GateInWords(environment, component, name,
                    gate.criteria().stream().map(InWords::of).toList()));
        }
    }

    public Checked check(String text) {
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read(text,
                mapper.all().stream().map(EnvironmentRow::name).toList());
        List<Problem> problems = new ArrayList<>(reading.problems());
        List<Problem> warnings = new ArrayList<>(reading.warnings());
        reading.value().ifPresent(file -> {
            SourcePositions places = SourcePositions.of(text);
            unknownNames(file, (path, message) -> problems.add(places.problem(path, message)));
            if (problems.isEmpty()) {
                lacking(file, (path, message) -> warnings.add(places.problem(path, message)));
            }
        });
        return new Checked(problems.isEmpty() ? reading.value() : Optional.empty(), problems.stream().sorted().toList(),
                warnings.stream().sorted().toList());
    }

    private void unknownNames(EnvironmentsFile file, BiConsumer<String, String> problem) {
        List<String> known = components.all().stream().map(Components.RegisteredComponent::name).toList();
        List<String> people = rulesChecks.people();
        for (EnvironmentsFile.Environment environment : file.environments()) {
            String where = "environments." + environment.name();
            environment.components().keySet().stream().filter(name -> !known.contains(name))
                    .forEach(name -> problem.accept(where + ".components." + name,
                            "there is no component " + name + NearestName.hint(name, known)));
            rulesChecks.check(environment.rules(), where, people, problem);
            unknownAgents(environment, where, problem);
        }
        file.previews().stream().filter(template -> !known.contains(template.component())).forEach(
                template -> problem.accept("previews." + template.name() + ".component", "there is no component "
                        + template.component() + NearestName.hint(template.component(), known)));
    }

    /**
     * Secrets that a place is said to need, and hosts that nobody answers for: what would be found out in the night.
     */
    private void lacking(EnvironmentsFile file, BiConsumer<String, String> warning) {
        Set<String> served = Set.copyOf(mapper.servedHosts());
        Map<String, Long> ids = components.all().stream()
                .collect(Collectors.toMap(Components.RegisteredComponent::name, Components.RegisteredComponent::id));
        for (EnvironmentsFile.Environment environment : file.environments()) {
            long environmentId = mapper.named(environment.name()).map(EnvironmentRow::id).orElse(-1L);
            environment.components().forEach((component, place) -> {
                String where = "environments." + environment.name() + ".components." + component;
                secrets.lacks(place.secrets(), ids.get(component), environmentId)
                        .forEach(lack -> warning.accept(where + ".secrets",
                                lack.sentence(component, Optional.of(environment.name()))));
                place.hosts().forEach((name, host) -> {
                    if (host.ssh().isEmpty() && !served.contains(name)) {
                        warning.accept(where + ".hosts." + name,
                                "no agent is enrolled for " + name + ": paseo agent enrol NAME --host " + name);
                    }
                });
            });
        }
    }

    private void unknownAgents(EnvironmentsFile.Environment environment, String where,
            BiConsumer<String, String> problem) {
        List<String> agents = mapper.agents();
        environment.components()
                .forEach((component, place) -> place.hosts()
                        .forEach((name, host) -> host.ssh().filter(ssh -> !agents.contains(ssh.agent()))
                                .ifPresent(ssh -> problem.accept(
                                        where + ".components." + component + ".hosts." + name + ".ssh.agent",
                                        "there is no agent " + ssh.agent() + NearestName.hint(ssh.agent(), agents)))));
    }

    /** What loading it would ask less than now; each has to be meant. */
    List<Change> loosens(EnvironmentsFile file) {
        List<Change> loosens = new ArrayList<>();
        for (EnvironmentsFile.Environment wanted : file.environments()) {
            mapper.named(wanted.name()).filter(row -> row.rulesRevision() > 0).ifPresent(row -> {
                Rules before = rules.read(row.rules());
                Loosening.of(before, wanted.rules(), Periods.keeps(before.closed(), wanted.rules().closed()))
                        .forEach(what -> loosens.add(new Change(wanted.name(), what)));
            });
        }
        return loosens;
    }

    /** What loading it would change; nothing where all is so already. */
    List<Change> changes(EnvironmentsFile file) {
        List<Change> changes = new ArrayList<>();
        for (EnvironmentsFile.Environment wanted : file.environments()) {
            Optional<EnvironmentRow> there = mapper.named(wanted.name());
            if (there.isEmpty()) {
                changes.add(new Change(wanted.name(), "is new"));
            } else if (!rules.read(there.get().rules()).equals(wanted.rules())) {
                int waiting = mapper.waiting(there.get().id());
                changes.add(new Change(wanted.name(),
                        "its rules change" + (waiting == 0 ? ""
                                : "; " + (waiting == 1 ? "1 deployment waits" : waiting + " deployments wait")
                                        + " there, and what was approved of " + (waiting == 1 ? "it" : "them")
                                        + " no longer counts")));
            }
            there.filter(row -> !row.zone().equals(wanted.zone()))
                    .ifPresent(row -> changes.add(
                            new Change(wanted.name(), "its zone changes from " + row.zone() + " to " + wanted.zone()
                                    + (wanted.zone().equals("UTC") ? ", which holds where a file names none" : ""))));
            there.ifPresent(row -> mapper.placesIn(row.id()).stream()
                    .filter(component -> !wanted.components().containsKey(component))
                    .forEach(component -> changes.add(new Change(wanted.name(), component
                            + " is left out of the file: its place there stays as it is; to take it out of use: "
                            + "paseo retire place "
                            + component + " --in " + wanted.name()))));
            Map<String, PlaceSettingsRow> places = there.map(row -> mapper.settingsIn(row.id())).orElse(List.of())
                    .stream().collect(Collectors.toMap(PlaceSettingsRow::component, row -> row));
            Map<Long, List<String>> hosts = there.map(row -> mapper.hostsIn(row.id())).orElse(List.of()).stream()
                    .collect(Collectors.groupingBy(ServedRow::place,
                            Collectors.mapping(ServedRow::host, Collectors.toList())));
            wanted.components()
                    .forEach((component, place) -> Optional.ofNullable(places.get(component))
                            .flatMap(row -> hostsGone(component, hosts.getOrDefault(row.place(), List.of()), place))
                            .ifPresent(what -> changes.add(new Change(wanted.name(), what))));
            wanted.components()
                    .forEach((component, place) -> change(wanted, component, place,
                            Optional.ofNullable(places.get(component)).map(PlaceSettingsRow::settings))
                            .ifPresent(what -> changes.add(new Change(wanted.name(), what))));
        }
        return changes;
    }

    /** Hosts that are left out are no hosts of the place any more; what runs on them keeps running. */
    private static Optional<String> hostsGone(String component, List<String> hosts, EnvironmentsFile.Place wanted) {
        List<String> gone = hosts.stream().filter(host -> !wanted.hosts().containsKey(host)).toList();
        return gone.isEmpty() ? Optional.empty() : Optional.of(component + " no longer has " + String.join(", ", gone)
                + "; what runs there keeps running until somebody removes it");
    }

    private Optional<String> change(EnvironmentsFile.Environment environment, String component,
            EnvironmentsFile.Place wanted, Optional<String> settings) {
        if (settings.isEmpty()) {
            return Optional.of(component + " gets a place there, on " + String.join(", ", wanted.hosts().keySet()));
        }
        String body = json.write(Loading.settings(wanted, Loading.variables(environment, wanted)));
        return Loading.asWrittenNow(settings.get(), json).equals(body) ? Optional.empty() : Optional.of(
                "the settings of " + component + " change; they reach it with its next deployment, or by a redeploy");
    }
}

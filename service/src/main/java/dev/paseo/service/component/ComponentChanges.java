package dev.paseo.service.component;

import dev.paseo.language.file.Names;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceAccess;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Changes a component that is registered: where its source is, what it is called, what its branches may. */
@Component
class ComponentChanges {

    /**
     * What is to change; what is absent stays as it is.
     *
     * @param name       its new name; it is still reached by the one that it has, and its file may go on to say that
     * @param repository where its source is now, and that of all components of the same repository
     * @param credentials to reach that with; absent: those that it has
     * @param file       path of its pipeline file
     * @param trusted    in place of all patterns of trusted branches
     * @param allowed    in place of all patterns of further branches
     */
    record ComponentChange(Optional<String> name, Optional<String> repository, Optional<SourceAccess> credentials, Optional<String> file, Optional<String> mainBranch,
            Optional<List<String>> trusted, Optional<List<String>> allowed) {}

    private final ComponentMapper mapper;
    private final Components components;
    private final Registration registration;
    private final Mirrors mirrors;
    private final Around records;

    /** How the source is reached, and what a change leaves. */
    @Component("componentChangesAround")
    record Around(SourceCredentials credentials, Transactions transactions, AuditTrail audit, Telling telling) {}

    ComponentChanges(ComponentMapper mapper, Components components, Registration registration, Mirrors mirrors, Around records) {
        this.mapper = mapper;
        this.components = components;
        this.registration = registration;
        this.mirrors = mirrors;
        this.records = records;
    }

    /** All of it, or where one thing is refused nothing. The branches are looked at again; what is there already starts nothing. */
    Registered change(Registered component, ComponentChange change, String by) {
        change.name().filter(name -> !name.equals(component.name())).ifPresent(name -> refuse(component, name));
        change.trusted().orElse(List.of()).forEach(Registration::pattern);
        change.allowed().orElse(List.of()).forEach(Registration::pattern);
        change.file().filter(file -> file.isBlank() || file.startsWith("/") || file.contains("..") || file.length() > 200).ifPresent(file -> {
            throw Refusal.invalid("/file", "should be a path in the repository, of at most 200 signs; got '" + file + "'");
        });
        change.mainBranch().ifPresent(Registration::pattern);
        change.repository().ifPresent(repository -> reach(component, repository, change.credentials()));
        Map<String, String> told = told(component, change);
        records.transactions().run(() -> {
            change.repository().filter(repository -> !component.repository().equals(Optional.of(repository))).ifPresent(repository -> {
                mapper.moveRepository(component.repository().orElseThrow(), repository);
                change.credentials().ifPresent(how -> records.credentials().keep(mapper.firstOf(repository), how));
            });
            mapper.change(component.id(), change.name().orElse(component.name()), change.file().orElse(component.filePath()), change.mainBranch().orElse(component.mainBranch()));
            change.name().filter(name -> !name.equals(component.name())).ifPresent(name -> {
                mapper.dropFormerName(name, component.id());
                mapper.addFormerName(component.name(), component.id());
                mapper.renameSource(component.name(), name);
            });
            change.trusted().ifPresent(patterns -> rules(component.id(), patterns, true));
            change.allowed().ifPresent(patterns -> rules(component.id(), patterns, false));
            AuditTrail.Entry entry = AuditTrail.Entry.of(by, "component changed", component.name());
            for (Map.Entry<String, String> each : told.entrySet()) {
                entry = entry.with(each.getKey(), each.getValue());
            }
            records.audit().record(entry);
            records.telling().tell("component", component.name());
        });
        Registered now = components.byId(component.id());
        if (change.repository().isPresent()) {
            components.ofRepository(change.repository().get()).forEach(registration::seeHeads);
        } else if (now.repository().isPresent()) {
            registration.seeHeads(now);
        } else {
            components.refreshTriggers();
        }
        return now;
    }

    private void refuse(Registered component, String name) {
        if (!Names.NAME.matcher(name).matches()) {
            throw Refusal.invalid("/name", "a component's name has " + Names.NAME_WORDS + "; got '" + name + "'");
        }
        if (!components.free(name) && !components.formerNames(component.id()).contains(name)) {
            throw Refusal.conflict("there is, or was, a component named " + name + "; " + components.freeName(name) + " is free");
        }
    }

    private void reach(Registered component, String repository, Optional<SourceAccess> credentials) {
        if (component.repository().isEmpty()) {
            throw Refusal.conflict(component.name() + " has no repository: its versions are built elsewhere. Register another component for what is built here");
        }
        if (!component.repository().get().equals(repository) && !components.ofRepository(repository).isEmpty()) {
            throw Refusal.conflict(repository + " is the repository of " + components.ofRepository(repository).getFirst().name() + " already");
        }
        mirrors.allow(repository);
        SourceAccess how = credentials.orElseGet(() -> records.credentials().of(mapper.firstOf(component.repository().orElseThrow())));
        how.check(repository);
        mirrors.glance(repository, how).listing();
    }

    private void rules(long component, List<String> patterns, boolean trusted) {
        mapper.dropRules(component, trusted);
        patterns.stream().distinct().forEach(pattern -> mapper.addRule(component, pattern, trusted));
    }

    /** Before and after of what changes. */
    private Map<String, String> told(Registered component, ComponentChange change) {
        Map<String, String> told = new LinkedHashMap<>();
        change.name().ifPresent(name -> told.put("name", name));
        change.repository().ifPresent(repository -> told.put("repository", component.repository().orElse("none") + " to " + repository));
        change.file().ifPresent(file -> told.put("file", component.filePath() + " to " + file));
        change.mainBranch().ifPresent(branch -> told.put("main branch", component.mainBranch() + " to " + branch));
        change.trusted().ifPresent(patterns -> told.put("trusted", components.rules(component.id()).trusted() + " to " + patterns));
        change.allowed().ifPresent(patterns -> told.put("allowed", components.rules(component.id()).allowed() + " to " + patterns));
        return told;
    }
}

package dev.paseo.service.component;

import dev.paseo.service.source.SourceCredentials;
import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.file.Names;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceAccess;
import java.net.URI;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Changes a component that is registered: where its source is, what it is called, what its branches may. */
@Component
public class ComponentChanges {

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
    record ComponentChange(Optional<String> name, Optional<String> repository, Optional<SourceAccess> credentials,
            Optional<String> file, Optional<String> mainBranch,
            Optional<List<String>> trusted, Optional<List<String>> allowed) {}

    /** Something that holds a component by its name, and would lose it: rules of a gate, a template, a receiver. */
    public interface Naming {

        /** What names it, each such as {@code the rules of production}. */
        List<String> naming(String component);
    }

    private final ComponentMapper mapper;
    private final Components components;
    private final Registration registration;
    private final Mirrors mirrors;
    private final Around records;

    /** How the source is reached, and what a change leaves. */
    @Component("componentChangesAround")
    record Around(SourceCredentials credentials, List<Naming> naming, Changes changes, Loosenings loosenings,
            Agreements agreements, Agreements.Askers asking, Json json) {}

    ComponentChanges(ComponentMapper mapper, Components components, Registration registration, Mirrors mirrors,
            Around records) {
        this.mapper = mapper;
        this.components = components;
        this.registration = registration;
        this.mirrors = mirrors;
        this.records = records;
    }

    /**
     * All of it, or where one thing is refused nothing. The branches are looked at again; what is there already starts
     * nothing.
     */
    RegisteredComponent change(RegisteredComponent component, ComponentChange change, Person by) {
        change.name().filter(name -> !name.equals(component.name())).ifPresent(name -> refuse(component, name));
        change.trusted().orElse(List.of()).forEach(Registration::pattern);
        change.allowed().orElse(List.of()).forEach(Registration::pattern);
        change.file()
                .filter(file -> file.isBlank() || file.startsWith("/") || file.contains("..") || file.length() > 200)
                .ifPresent(file -> {
                    throw Refusal.invalid("/file",
                            "should be a path in the repository, of at most 200 characters; got “" + file + "”");
                });
        change.mainBranch().ifPresent(Registration::pattern);
        askSecond(component, change, by);
        return changed(component, change, by.name(), Optional.empty());
    }

    private List<String> more(RegisteredComponent component, ComponentChange change) {
        List<String> before = components.rules(component.id()).trusted().stream().map(BranchPattern::toString).toList();
        return change.trusted().orElse(List.of()).stream().filter(pattern -> !before.contains(pattern)).toList();
    }

    /**
     * Where an environment that the component reaches asks a second person, more branches are trusted when somebody has
     * agreed.
     */
    private void askSecond(RegisteredComponent component, ComponentChange change, Person by) {
        List<String> more = more(component, change);
        Map<String, List<String>> asked = more.isEmpty() ? Map.of() : records.asking().ofComponent(component.name());
        if (asked.isEmpty()) {
            return;
        }
        if (!change.equals(new ComponentChange(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), change.trusted(), Optional.empty()))) {
            throw Refusal.conflict("Nothing is changed: that more branches are trusted waits for a second person, for "
                    + String.join(" and ", asked.keySet())
                    + ". Change the trusted branches by themselves, and the rest by itself");
        }
        records.agreements().ask(new Wanted(TrustCarrier.KIND,
                List.of(trust(component, more),
                        "trusted branches of " + component.name() + " then: "
                                + String.join(", ", change.trusted().orElseThrow())),
                records.json().write(new TrustCarrier.Trust(component.name(), change.trusted().orElseThrow())), asked),
                by);
    }

    private static String trust(RegisteredComponent component, List<String> more) {
        return "the trusted branches of " + component.name() + ": " + String.join(", ", more) + " are trusted too";
    }

    /** Exactly these branches are trusted; somebody has agreed. */
    void agreed(RegisteredComponent component, List<String> trusted, String by, String agreedBy) {
        changed(component, new ComponentChange(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), Optional.of(trusted), Optional.empty()), by, Optional.of(agreedBy));
    }

    private RegisteredComponent changed(RegisteredComponent component, ComponentChange change, String by,
            Optional<String> agreedBy) {
        Optional<Reached> source = source(component, change);
        Map<String, String> told = told(component, change);
        records.changes().run(() -> {
            mapper.lock(component.id());
            source.ifPresent(reached -> {
                mapper.moveRepository(component.repository().orElseThrow(), reached.repository());
                records.credentials().keep(mapper.firstOf(reached.repository()), reached.how());
            });
            mapper.change(component.id(), change.name().orElse(component.name()),
                    change.file().orElse(component.filePath()), change.mainBranch().orElse(component.mainBranch()));
            change.name().filter(name -> !name.equals(component.name())).ifPresent(name -> {
                mapper.dropFormerName(name, component.id());
                mapper.addFormerName(component.name(), component.id());
                mapper.renameSource(component.name(), name);
            });
            change.trusted().ifPresent(patterns -> {
                List<String> more = more(component, change);
                if (!more.isEmpty() && agreedBy.isEmpty()) {
                    records.loosenings().ofComponent(component.id(), trust(component, more), by);
                }
                rules(component.id(), patterns, true);
            });
            change.allowed().ifPresent(patterns -> rules(component.id(), patterns, false));
            AuditTrail.Entry entry = AuditTrail.Entry.of(by, "component changed", component.name());
            entry = agreedBy.isPresent() ? entry.with("agreed by", agreedBy.get()) : entry;
            for (Map.Entry<String, String> each : told.entrySet()) {
                entry = entry.with(each.getKey(), each.getValue());
            }
            records.changes().record(BranchStates.into(entry, component.id(), mapper));
            records.changes().publish("component", component.name());
        });
        return seenAgain(components.byId(component.id()), source.isPresent());
    }

    private RegisteredComponent seenAgain(RegisteredComponent now, boolean all) {
        if (now.repository().isEmpty()) {
            components.refreshTriggers();
        } else {
            (all ? components.ofRepository(now.repository().get()) : List.of(now)).forEach(registration::seeHeads);
        }
        return now;
    }

    /** Whom a change concerns: with the source, all components that come from there. */
    List<RegisteredComponent> concerned(RegisteredComponent component, ComponentChange change) {
        boolean source = change.repository().isPresent() || change.credentials().isPresent();
        return source && component.repository().isPresent() ? components.ofRepository(component.repository().get())
                : List.of(component);
    }

    private void refuse(RegisteredComponent component, String name) {
        if (!Names.NAME.matcher(name).matches()) {
            throw Refusal.invalid("/name", "A component's name has " + Names.NAME_WORDS + "; got “" + name + "”");
        }
        if (!components.free(name) && !components.formerNames(component.id()).contains(name)) {
            throw Refusal.conflict(
                    "There is, or was, a component named " + name + "; " + components.freeName(name) + " is free");
        }
        List<String> naming = records.naming().stream().flatMap(each -> each.naming(component.name()).stream())
                .toList();
        if (!naming.isEmpty()) {
            throw Refusal.conflict(component.name() + " cannot be renamed yet: it is named in "
                    + String.join(", ", naming) + "; change that first");
        }
    }

    /** Where the source is then, and how it is reached. */
    private record Reached(String repository, SourceAccess how) {}

    /** Empty where neither the repository nor its credentials change; refused where it does not let us in. */
    private Optional<Reached> source(RegisteredComponent component, ComponentChange change) {
        Optional<String> repository = change.repository()
                .or(() -> change.credentials().flatMap(how -> component.repository()));
        if (change.credentials().isEmpty() && repository.equals(component.repository())
                || repository.isEmpty() && change.credentials().isEmpty()) {
            return Optional.empty();
        }
        String before = component.repository().orElseThrow(() -> Refusal.conflict(component.name()
                + " has no repository: its versions are built elsewhere. Register another component for what is "
                + "built here"));
        String wanted = repository.orElseThrow();
        List<RegisteredComponent> others = before.equals(wanted) ? List.of() : components.ofRepository(wanted);
        if (!others.isEmpty()) {
            throw Refusal.conflict(wanted + " is already the repository of " + others.getFirst().name());
        }
        mirrors.allow(wanted);
        // Credentials are never shown to another host than the one that they were given for.
        SourceAccess how = change.credentials().orElseGet(() -> host(before).equals(host(wanted))
                ? records.credentials().of(mapper.firstOf(before)) : SourceAccess.NONE);
        how.check(wanted);
        mirrors.glance(wanted, how).listing();
        return Optional.of(new Reached(wanted, how));
    }

    private static String host(String repository) {
        URI address = URI.create(repository);
        return address.getScheme() + "://" + address.getAuthority();
    }

    private void rules(long component, List<String> patterns, boolean trusted) {
        mapper.dropRules(component, trusted);
        patterns.stream().distinct().forEach(pattern -> mapper.addRule(component, pattern, trusted));
    }

    /** Before and after of what changes. */
    private Map<String, String> told(RegisteredComponent component, ComponentChange change) {
        Map<String, String> told = new LinkedHashMap<>();
        change.name().ifPresent(name -> told.put("name", name));
        change.repository().ifPresent(
                repository -> told.put("repository", component.repository().orElse("none") + " to " + repository));
        change.credentials().ifPresent(how -> told.put("credentials", "set anew"));
        change.file().ifPresent(file -> told.put("file", component.filePath() + " to " + file));
        change.mainBranch().ifPresent(branch -> told.put("main branch", component.mainBranch() + " to " + branch));
        change.trusted().ifPresent(
                patterns -> told.put("trusted", components.rules(component.id()).trusted() + " to " + patterns));
        change.allowed().ifPresent(
                patterns -> told.put("allowed", components.rules(component.id()).allowed() + " to " + patterns));
        return told;
    }
}

package dev.paseo.service.component;

import dev.paseo.core.access.Person;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.source.SourceAccess;
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

    private final Components components;
    private final Registration registration;
    private final SourceMoves sources;
    private final ComponentChecks checks;
    private final ChangedComponents changed;

    ComponentChanges(Components components, Registration registration, SourceMoves sources, ComponentChecks checks,
            ChangedComponents changed) {
        this.components = components;
        this.registration = registration;
        this.sources = sources;
        this.checks = checks;
        this.changed = changed;
    }

    /**
     * All of it, or where one thing is refused nothing. The branches are looked at again; what is there already starts
     * nothing.
     */
    RegisteredComponent change(RegisteredComponent component, ComponentChange change, Person by) {
        checks.check(component, change);
        checks.askSecond(component, change, by);
        return changed(component, change, by.name(), Optional.empty());
    }

    /** Exactly these branches are trusted; somebody has agreed. */
    void agreed(RegisteredComponent component, List<String> trusted, String by, String agreedBy) {
        changed(component, new ComponentChange(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), Optional.of(trusted), Optional.empty()), by, Optional.of(agreedBy));
    }

    private RegisteredComponent changed(RegisteredComponent component, ComponentChange change, String by,
            Optional<String> agreedBy) {
        Optional<SourceMoves.Reached> source = sources.source(component, change);
        changed.write(component,
                new ChangedComponents.Change(change, source, told(component, change), by, agreedBy));
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

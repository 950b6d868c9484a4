package dev.paseo.service.component;

import dev.paseo.core.access.Person;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.file.Names;
import dev.paseo.service.component.ComponentChanges.ComponentChange;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What is asked before a component is changed: names and patterns as they have to be, and a second person. */
@Component
class ComponentChecks {

    private final Components components;
    private final List<ComponentChanges.Naming> naming;
    private final Agreements agreements;
    private final Agreements.Askers asking;
    private final Json json;

    ComponentChecks(Components components, List<ComponentChanges.Naming> naming, Agreements agreements,
            Agreements.Askers asking, Json json) {
        this.components = components;
        this.naming = naming;
        this.agreements = agreements;
        this.asking = asking;
        this.json = json;
    }

    /**
     * All of what is to change.
     *
     * @throws Refusal invalid where it is not as it has to be; a conflict where the name is another's, or named
     */
    void check(RegisteredComponent component, ComponentChange change) {
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
    }

    /** The patterns that are trusted then and are not now. */
    List<String> more(RegisteredComponent component, ComponentChange change) {
        List<String> before = components.rules(component.id()).trusted().stream().map(BranchPattern::toString).toList();
        return change.trusted().orElse(List.of()).stream().filter(pattern -> !before.contains(pattern)).toList();
    }

    /**
     * Where an environment that the component reaches asks a second person, more branches are trusted when somebody has
     * agreed.
     */
    void askSecond(RegisteredComponent component, ComponentChange change, Person by) {
        List<String> more = more(component, change);
        Map<String, List<String>> asked = more.isEmpty() ? Map.of() : asking.ofComponent(component.name());
        if (asked.isEmpty()) {
            return;
        }
        if (!change.equals(new ComponentChange(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), change.trusted(), Optional.empty()))) {
            throw Refusal.conflict("Nothing is changed: that more branches are trusted waits for a second person, for "
                    + String.join(" and ", asked.keySet())
                    + ". Change the trusted branches by themselves, and the rest by itself");
        }
        agreements.ask(new Wanted(TrustCarrier.KIND,
                List.of(trust(component, more),
                        "trusted branches of " + component.name() + " then: "
                                + String.join(", ", change.trusted().orElseThrow())),
                json.write(new TrustCarrier.Trust(component.name(), change.trusted().orElseThrow())), asked),
                by);
    }

    static String trust(RegisteredComponent component, List<String> more) {
        return "the trusted branches of " + component.name() + ": " + String.join(", ", more) + " are trusted too";
    }

    private void refuse(RegisteredComponent component, String name) {
        if (!Names.NAME.matcher(name).matches()) {
            throw Refusal.invalid("/name", "A component's name has " + Names.NAME_WORDS + "; got “" + name + "”");
        }
        if (!components.free(name) && !components.formerNames(component.id()).contains(name)) {
            throw Refusal.conflict(
                    "There is, or was, a component named " + name + "; " + components.freeName(name) + " is free");
        }
        List<String> holding = naming.stream().flatMap(each -> each.naming(component.name()).stream())
                .toList();
        if (!holding.isEmpty()) {
            throw Refusal.conflict(component.name() + " cannot be renamed yet: it is named in "
                    + String.join(", ", holding) + "; change that first");
        }
    }
}

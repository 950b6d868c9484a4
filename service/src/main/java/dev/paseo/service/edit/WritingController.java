package dev.paseo.service.edit;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What helps whoever writes: names that are there, and conditions and patterns tried before they are in force. */
@RestController
@RequestMapping("/api/v1")
class WritingController {

    /**
     * A condition.
     *
     * @param key   {@code wanted-if}, over the facts of runs, or {@code warn-if}, over the reports of a stage
     * @param stage whose reports {@code warn-if} is over
     */
    record ConditionRequest(String key, @Size(max = 2000) String condition, Optional<String> stage) {}

    /** Patterns of branches, by name or with {@code *}. */
    record PatternsRequest(@Size(max = 100) List<@Size(max = 200) String> patterns) {}

    /** A condition over facts. */
    record FactsRequest(@Size(max = 2000) String condition) {}

    private final Components components;
    private final Environments environments;
    private final ConditionTrials conditions;
    private final NamesAtHand names;

    WritingController(Components components, Environments environments, ConditionTrials conditions,
            NamesAtHand names) {
        this.components = components;
        this.environments = environments;
        this.conditions = conditions;
        this.names = names;
    }

    /** What a component's pipeline file can name: components, environments, offers, artifacts, secrets, pieces. */
    @GetMapping("/components/{name}/pipeline/names")
    NamesAtHand.NamesView names(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return names.of(components.named(name), seenBy(person));
    }

    /** Says for which of the newest runs a condition would have held; nothing is kept. */
    @PostMapping("/components/{name}/pipeline/conditions")
    ConditionTrials.ConditionView condition(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody ConditionRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        return switch (request.key()) {
            case "wanted-if" -> conditions.wanted(component, request.condition());
            case "warn-if" -> conditions.warned(component, request.stage().orElseThrow(
                    () -> Refusal.invalid("/stage", "Say whose reports warn-if is over")), request.condition());
            default -> throw Refusal.invalid("/key",
                    "should be wanted-if or warn-if; got “" + request.key() + "”");
        };
    }

    /** Says which of the newest pushes patterns of branches name; nothing is kept. */
    @PostMapping("/components/{name}/pipeline/patterns")
    List<ConditionTrials.TriedPushView> patterns(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody PatternsRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return conditions.pushes(components.named(name), request.patterns());
    }

    /** Says for which of the newest promotions into an environment a condition of its gate would hold. */
    @PostMapping("/environments/{name}/facts")
    ConditionTrials.FactsView facts(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody FactsRequest request) {
        Permission.require(person, Action.LOOK);
        return conditions.facts(environments.named(name), request.condition(),
                seenBy(person));
    }

    private static Predicate<String> seenBy(Person person) {
        return component -> person.may(Action.LOOK, Optional.of(component), Optional.empty());
    }
}

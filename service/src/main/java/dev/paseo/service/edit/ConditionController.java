package dev.paseo.service.edit;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Tries conditions of a pipeline file before they are in force. */
@RestController
@RequestMapping("/api/v1/components/{name}/pipeline")
class ConditionController {

    /**
     * A condition.
     *
     * @param key   {@code wanted-if}, over the facts of runs, or {@code warn-if}, over the reports of a stage
     * @param stage whose reports {@code warn-if} is over
     */
    record ConditionRequest(String key, @Size(max = 2000) String condition, Optional<String> stage) {}

    private final Components components;
    private final ConditionTrials conditions;

    ConditionController(Components components, ConditionTrials conditions) {
        this.components = components;
        this.conditions = conditions;
    }

    /** Says for which of the newest runs a condition would have held; nothing is kept. */
    @PostMapping("/conditions")
    ConditionTrials.ConditionView condition(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody ConditionRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        Registered component = components.named(name);
        return switch (request.key()) {
            case "wanted-if" -> conditions.wanted(component, request.condition());
            case "warn-if" -> conditions.warned(component, request.stage().orElseThrow(
                    () -> Refusal.invalid("/stage", "Say whose reports warn-if is over")), request.condition());
            default -> throw Refusal.invalid("/key",
                    "should be wanted-if or warn-if; got “" + request.key() + "”");
        };
    }
}

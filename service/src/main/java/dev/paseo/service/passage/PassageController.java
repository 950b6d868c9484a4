package dev.paseo.service.passage;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.passage.PassageMapper.PassageRow;
import dev.paseo.service.passage.PassageViews.PassageView;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class PassageController {

    /** {@code outcome}: {@code done}, {@code failed} or {@code cleared}; {@code picture} is one that was uploaded. */
    record TickRequest(String item, Optional<String> outcome, Optional<String> note, Optional<String> picture) {}

    /** {@code subject}: what was looked at, as the passage tells it; nobody approves without. */
    record GateDecisionRequest(boolean yes, Optional<String> comment, Optional<String> subject) {}

    private final Passages passages;
    private final PassageDecisions decisions;
    private final PassageViews views;
    private final Versions versions;
    private final Components components;

    PassageController(Passages passages, PassageDecisions decisions, PassageViews views, Versions versions,
            Components components) {
        this.passages = passages;
        this.decisions = decisions;
        this.views = views;
        this.versions = versions;
        this.components = components;
    }

    /** A passage: a version in an environment, with the gate onward. */
    @GetMapping("/passages/{id}")
    PassageView passage(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        return views.view(passages.passage(id), person.name());
    }

    /** The passages of a version, the oldest first. */
    @GetMapping("/versions/{component}/{number}/passages")
    List<PassageView> ofVersion(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        Versions.Version version = versions.numbered(components.named(component).id(), component, number);
        return passages.ofVersion(version.id()).stream().map(row -> views.view(row, person.name())).toList();
    }

    /** Ticks an item of a passage's checklist. */
    @PostMapping("/passages/{id}/ticks")
    PassageView tick(@AuthenticationPrincipal Person person, @PathVariable long id, @RequestBody TickRequest request) {
        require(person, "tick items of", id);
        decisions.tick(id, person, request.item(), request.outcome(), request.note(), request.picture());
        return views.view(passages.passage(id), person.name());
    }

    /** Approves or rejects that a version goes on from an environment. */
    @PostMapping("/passages/{id}/decision")
    PassageView decide(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody GateDecisionRequest request) {
        require(person, "decide about", id);
        decisions.decide(id, person, request.yes(), request.comment().orElse("").strip(), request.subject());
        return views.view(passages.passage(id), person.name());
    }

    private void require(Person person, String what, long id) {
        PassageRow row = passages.passage(id);
        String component = versions.byId(row.versionId()).component();
        Permission.require(person, Action.DECIDE, what + " " + component + " in " + row.environment(),
                Optional.of(component), Optional.of(row.environment()));
    }
}

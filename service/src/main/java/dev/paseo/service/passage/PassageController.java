package dev.paseo.service.passage;

import dev.paseo.core.environment.Passage;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.passage.PassageMapper.PassageRow;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.picture.Pictures;
import dev.paseo.service.version.Versions;
import java.time.Instant;
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

    /**
     * A version's stay in an environment.
     *
     * @param mayNot     why the reader may not decide about its leaving; empty where they may
     * @param mayNotTick why the reader may not tick
     * @param reason     what keeps it there
     * @param subject    what an approval approves, to be sent with it; absent once it has ended
     * @param testFailed a test of what is live failed there, so that its gate onward is not judged
     */
    record PassageView(long id, String component, String version, String environment, long deployment,
            Passage.Status status,
            Instant openedAt, Optional<Instant> settledAt,
            Optional<Instant> endedAt, Optional<String> reason, List<GateViews.CriterionView> gate,
            List<GateViews.ListView> checklists, List<GateViews.GateDecisionView> decisions,
            Optional<String> mayNot, Optional<String> mayNotTick, boolean commentRequired, Optional<String> url,
            Optional<String> subject, boolean testFailed, String zone) {}

    /** {@code outcome}: {@code done}, {@code failed} or {@code cleared}; {@code picture} is one that was uploaded. */
    record TickRequest(String item, Optional<String> outcome, Optional<String> note, Optional<String> picture) {}

    /** {@code subject}: what was looked at, as the passage tells it; nobody approves without. */
    record GateDecisionRequest(boolean yes, Optional<String> comment, Optional<String> subject) {}

    private final Passages passages;
    private final Versions versions;
    private final Gates gates;
    private final Environments environments;
    private final Looking looking;

    /** How things are put into words. */
    @org.springframework.stereotype.Component("passageLooking")
    record Looking(GateViews views, Pictures pictures, ServiceClock clock, Components components) {}

    PassageController(Passages passages, Versions versions, Gates gates, Environments environments, Looking looking) {
        this.passages = passages;
        this.versions = versions;
        this.gates = gates;
        this.environments = environments;
        this.looking = looking;
    }

    /** A passage: a version in an environment, with the gate onward. */
    @GetMapping("/passages/{id}")
    PassageView passage(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        return view(passages.passage(id), person.name());
    }

    private PassageView view(PassageRow row, String reader) {
        Versions.Version version = versions.byId(row.versionId());
        boolean open = row.status() == Passage.Status.OPEN;
        Optional<Evaluation> gate = Optional.of(row).filter(each -> open).map(passages::evaluation);
        Gates.AtGate at = passages.atGate(row);
        String subject = gate.map(Evaluation::digest).orElseGet(() -> gates.digest(at));
        Gates.Standing standing = Gates.Standing.ofPassage(row.id());
        String ended = "passage " + row.id() + " has ended";
        return new PassageView(row.id(), version.component(), version.number(), row.environment(), row.deploymentId(),
                row.status(), row.openedAt(), Optional.ofNullable(row.settledAt()),
                Optional.ofNullable(row.endedAt()), Optional.ofNullable(row.reason()),
                GateViews.criteria(gate.map(Evaluation::verdict).orElse(Verdict.OPEN)), looking.views().lists(at),
                looking.views().decisions(standing, subject),
                gate.map(each -> each.refusal(reader)).orElse(Optional.of(ended)),
                gate.map(each -> each.tickRefusal(reader)).orElse(Optional.of(ended)),
                gate.filter(Evaluation::needsComment).isPresent(),
                environments.place(version.component(), row.environment()).url(), gate.map(Evaluation::digest),
                row.testFailure() != null, environments.byId(row.environmentId()).zone());
    }

    /** The passages of a version, the oldest first. */
    @GetMapping("/versions/{component}/{number}/passages")
    List<PassageView> ofVersion(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        Versions.Version version = versions.numbered(looking.components().named(component).id(), component, number);
        return passages.ofVersion(version.id()).stream().map(row -> view(row, person.name())).toList();
    }

    /** Ticks an item of a passage's checklist. */
    @PostMapping("/passages/{id}/ticks")
    PassageView tick(@AuthenticationPrincipal Person person, @PathVariable long id, @RequestBody TickRequest request) {
        require(person, "tick items of", id);
        passages.tick(id, person,
                GateViews.tick(request.item(), person.name(), request.outcome(), request.note(), looking.clock().now()),
                request.picture().map(looking.pictures()::known));
        return view(passages.passage(id), person.name());
    }

    /** Approves or rejects that a version goes on from an environment. */
    @PostMapping("/passages/{id}/decision")
    PassageView rule(@AuthenticationPrincipal Person person, @PathVariable long id,
            @RequestBody GateDecisionRequest request) {
        require(person, "decide about", id);
        passages.rule(id, person, request.yes(), request.comment().orElse("").strip(), request.subject());
        return view(passages.passage(id), person.name());
    }

    private void require(Person person, String what, long id) {
        PassageRow row = passages.passage(id);
        String component = versions.byId(row.versionId()).component();
        Permission.require(person, Action.DECIDE, what + " " + component + " in " + row.environment(),
                Optional.of(component), Optional.of(row.environment()));
    }
}

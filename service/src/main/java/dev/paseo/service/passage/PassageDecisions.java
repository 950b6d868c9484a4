package dev.paseo.service.passage;

import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Passage;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Tick;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.gate.GateDecisions;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.picture.Pictures;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What people say about whether a version leaves an environment: yes, no, an item of its checklist. */
@Component
class PassageDecisions {

    private final Passages passages;
    private final ExitGates exits;
    private final GateDecisions decisions;
    private final Pictures pictures;
    private final Changes changes;

    PassageDecisions(Passages passages, ExitGates exits, GateDecisions decisions, Pictures pictures, Changes changes) {
        this.passages = passages;
        this.exits = exits;
        this.decisions = decisions;
        this.pictures = pictures;
        this.changes = changes;
    }

    /** Somebody says what they found about an item of its checklist. */
    void tick(long id, Person person, String item, Optional<String> outcome, Optional<String> note,
            Optional<String> picture) {
        Tick tick = GateViews.tick(item, person.name(), outcome, note, changes.now());
        Optional<String> known = picture.map(pictures::known);
        exits.learn(passages.passage(id));
        passages.change(id, row -> {
            if (row.status() != Passage.Status.OPEN) {
                throw Refusal.conflict("Passage " + id + " has ended: nothing of it can be ticked any more");
            }
            Gates.AtGate at = exits.at(row);
            decisions.tick(at.standing(), exits.judged(at), person.id(), tick, known);
            Versions.Version version = at.version();
            changes.record(AuditTrail.Entry
                    .of(person.name(), "item " + tick.outcome().name().toLowerCase(java.util.Locale.ROOT),
                            version.component() + " " + version.number())
                    .in(row.environment())
                    .because(tick.note()).with("item", tick.item()).with("passage", Long.toString(id)));
        });
    }

    /** Somebody approves or rejects that it leaves; a yes is taken back by {@code takenBack}. */
    void decide(long id, Person person, boolean yes, String comment, Optional<String> seen) {
        exits.learn(passages.passage(id));
        passages.change(id, row -> {
            Gates.AtGate at = exits.at(row);
            if (row.status() != Passage.Status.OPEN) {
                throw Refusal.conflict("Passage " + id + " has ended: nothing of it can be decided any more");
            }
            Evaluation gate = exits.judged(at);
            gate.refusal(person.name()).ifPresent(why -> {
                throw Refusal.notAllowed(why);
            });
            if (comment.isEmpty() && (gate.needsComment() || !yes)) {
                throw Refusal.invalid("/comment",
                        yes ? row.environment() + " wants a comment with every decision" : "Say why it is rejected");
            }
            Gates.sameAsSeen(gate, yes, seen, "passage " + id);
            Optional<String> inPlaceOf = decisions.decide(at.standing(), gate, person, yes, comment);
            changes.record(decisions.stating(
                    AuditTrail.Entry
                            .of(person.name(), yes ? "approved" : "rejected",
                                    at.version().component() + " " + at.version().number())
                            .in(row.environment()).because(comment).with("passage", Long.toString(id))
                            .with("in place of", inPlaceOf.orElse("")).with("subject", gate.digest()),
                    at.standing()));
        });
    }
}

package dev.paseo.service.decision;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Review;
import dev.paseo.core.gate.Tick;
import dev.paseo.core.text.Shortened;
import dev.paseo.core.text.Word;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.gate.GateDecisions;
import dev.paseo.service.gate.GateViews;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiConsumer;
import org.springframework.stereotype.Component;

/** What people say about deployments: yes, no, an item of a checklist, what an emergency was like. */
@Component
class Deciding {

    private static final int LONGEST = 2000;

    private final Deployments deployments;
    private final Places places;
    private final PlaceGates gates;
    private final GateDecisions decisions;
    private final Changes changes;

    Deciding(Deployments deployments, Places places, PlaceGates gates, GateDecisions decisions, Changes changes) {
        this.deployments = deployments;
        this.places = places;
        this.gates = gates;
        this.decisions = decisions;
        this.changes = changes;
    }

    /** In a transaction, with the place locked, about a deployment that waits; its gate is judged again afterwards. */
    void about(long id, BiConsumer<Gates.AtGate, AuditTrail.Entry> word, String who, String what) {
        Deployment row = deployments.get(id);
        gates.learn(row.placeId());
        places.change(row.placeId(), place -> {
            Deployment now = deployments.get(id);
            if (now.status() != DeploymentStatus.WAITING) {
                throw Refusal
                        .conflict("deployment " + id + " no longer waits for a decision: it is " + Word.of(now.status())
                                + Optional.ofNullable(now.reason()).map(why -> " (" + why + ")").orElse(""));
            }
            Gates.AtGate at = gates.atGate(place, now);
            word.accept(at, AuditTrail.Entry.of(who, what, place.component() + " " + at.version().number())
                    .in(place.environment()).with("deployment", Long.toString(id)));
            return Optional.empty();
        });
    }

    /** How the gate stands at which somebody says something. */
    Evaluation evaluation(Gates.AtGate at) {
        return gates.evaluate(at);
    }

    /** A person says yes or no to exactly what they saw. */
    void decide(long id, Person person, boolean yes, String comment, Optional<String> seen) {
        String kept = shortened(comment);
        about(id, (at, entry) -> {
            Evaluation gate = gates.evaluate(at);
            gate.refusal(person.name()).ifPresent(why -> {
                throw Refusal.notAllowed(why);
            });
            if (kept.isEmpty() && (gate.needsComment() || !yes)) {
                throw Refusal.invalid("/comment", yes
                        ? at.place().environment() + " wants a comment with every decision" : "Say why it is rejected");
            }
            Gates.sameAsSeen(gate, yes, seen, "deployment " + id);
            Optional<String> inPlaceOf = decisions.decide(at.standing(), gate, person, yes, kept);
            changes.record(decisions.stating(inPlaceOf.map(other -> entry.with("in place of", other)).orElse(entry)
                    .because(kept).with("subject", gate.digest()), at.standing()));
        }, person.name(), yes ? "approved" : "rejected");
    }

    /** A person takes back what they approved, as long as it has not begun. */
    void takeBack(long id, Person person) {
        about(id, (at, entry) -> {
            if (!decisions.takeBack(at.standing(), person.id())) {
                throw Refusal.conflict(
                        person.name() + " has no approval of deployment " + id + " to take back");
            }
            changes.record(decisions.stating(entry, at.standing()));
        }, person.name(), "approval taken back");
    }

    /**
     * An item of a waiting deployment's checklist.
     *
     * @param outcome {@code done}, {@code failed} or {@code cleared}
     * @param picture one that was uploaded
     */
    void tick(long id, Person person, String item, Optional<String> outcome, Optional<String> note,
            Optional<String> picture) {
        Tick tick = GateViews.tick(item, person.name(), outcome, note, changes.now());
        about(id, (at, entry) -> {
            decisions.tick(at.standing(), gates.evaluate(at), person.id(), tick, picture);
            changes.record(entry.because(tick.note()).with("item", tick.item()));
        }, person.name(), "item " + tick.outcome().name().toLowerCase(Locale.ROOT));
    }

    /** An emergency was looked at afterwards. */
    void review(long id, Person person, String comment) {
        Deployment row = deployments.get(id);
        Deployments.ToReview toReview = deployments.toReview(id)
                .orElseThrow(() -> Refusal.conflict("Deployment " + id
                        + " needs no review: it was no emergency, and no loosened rule let it go live"));
        Review.refusal(id, person.name(), Optional.ofNullable(row.requestedBy()), toReview.loosenedBy())
                .ifPresent(why -> {
                    throw Refusal.notAllowed(why);
                });
        if (comment.isEmpty()) {
            throw Refusal.invalid("/comment", "Say what you found");
        }
        changes.run(() -> {
            if (!deployments.reviewed(id, person.id(), shortened(comment))) {
                throw Refusal.conflict("Deployment " + id + " was reviewed already");
            }
            changes
                    .record(AuditTrail.Entry.of(person.name(),
                            row.emergencyReason() != null ? "emergency reviewed" : "deployment reviewed",
                            "deployment " + id).because(comment).with("deployment", Long.toString(id)));
        });
    }

    private static String shortened(String text) {
        String kept = text.strip();
        return Shortened.to(kept, LONGEST);
    }
}

package dev.paseo.service.passage;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Passage;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Tick;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.passage.PassageMapper.PassageRow;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * The shell around the deciding about passages. In one transaction: lock the passage, note what happened, judge its
 * exit gate again, and let the walk go on where that is open.
 */
@Component
public class Passages {

    private final PassageMapper mapper;
    private final Environments environments;
    private final Versions versions;
    private final Gating gating;
    private final Changes changes;

    /** What gates onward are judged with. */
    @Component("passageGating")
    record Gating(Gates gates, WaitingGates waits, Authorship authorship) {}

    Passages(PassageMapper mapper, Environments environments, Versions versions, Gating gating, Changes changes) {
        this.mapper = mapper;
        this.environments = environments;
        this.versions = versions;
        this.gating = gating;
        this.changes = changes;
    }

    /** A version is live there, perhaps for the first time. */
    public void opened(long version, long environment, long deployment) {
        mapper.open(version, environment, deployment, changes.now());
        mapper.wakeOthers(environment, versions.byId(version).componentId(), version, changes.now());
    }

    /** It has stayed live and been tested: its gate onward is judged from now on. In the transaction under way. */
    public void settled(long version, long environment, long cause) {
        mapper.of(version, environment).ifPresent(id -> change(id, row -> {
            if (row.settledAt() == null) {
                mapper.settle(id, changes.now());
                versions.firstLive(new Versions.FirstLive(version, row.environment(), row.deploymentId(), cause));
            }
        }));
    }

    /** A test of it there failed: it does not go on until one passes. In the transaction under way. */
    public void testFailed(long version, long environment, String why) {
        mapper.of(version, environment).ifPresent(
                id -> change(id, row -> mapper.testFailed(id, Shortened.to(why, 1500), changes.now())));
    }

    /** It was there before there was anybody who could have watched it: it has passed. */
    public void recorded(long version, long environment) {
        mapper.of(version, environment).ifPresent(id -> {
            mapper.settle(id, changes.now());
            mapper.end(id, changes.now());
        });
    }

    PassageRow passage(long id) {
        return mapper.byId(id).orElseThrow(() -> Refusal.notFound("There is no passage " + id));
    }

    List<PassageRow> ofVersion(long version) {
        return mapper.ofVersion(version);
    }

    Gates.AtGate atGate(PassageRow row) {
        Versions.Version version = versions.byId(row.versionId());
        Environments.Place place = environments.place(version.component(), row.environment());
        return new Gates.AtGate(Gates.Standing.ofPassage(row.id()), place, version,
                Optional.ofNullable(row.beforeId()).map(versions::byId), "",
                Optional.ofNullable(row.settledAt()).orElse(row.openedAt()), Kind.PROMOTION, Optional.empty());
    }

    /** How its gate onward stands; authors are asked of git where they are not known. */
    Evaluation evaluation(PassageRow row) {
        learn(row);
        return gating.gates().evaluate(atGate(row));
    }

    private void learn(PassageRow row) {
        Gates.AtGate at = atGate(row);
        at.version().commit().ifPresent(commit -> gating.authorship().learn(at.version().componentId(),
                at.live().flatMap(Versions.Version::commit), commit));
    }

    /** Judges it again, outside any transaction. */
    void look(long id) {
        learn(passage(id));
        change(id, row -> {});
    }

    private void change(long id, Consumer<PassageRow> event) {
        changes.run(() -> {
            mapper.lock(id).orElseThrow(() -> Refusal.notFound("There is no passage " + id));
            event.accept(passage(id));
            judge(passage(id));
        });
    }

    private void judge(PassageRow row) {
        Passage now = new Passage(row.status(),
                row.settledAt() != null);
        Optional<Evaluation> gate = known(row);
        Optional<Verdict> verdict = gate.map(Evaluation::verdict);
        Decision<Passage, Passage.Effect> decision = Passage.decide(now,
                new Passage.PassageEvent.ExitJudged(verdict.filter(Verdict::open).isPresent()));
        if (!(decision instanceof Decision.Moved(Passage after, var effects))) {
            return;
        }
        Versions.Version version = versions.byId(row.versionId());
        if (effects.contains(new Passage.Effect.WalkOn()) && mapper.end(row.id(), changes.now()) == 1) {
            gating.waits().gone(Gates.Standing.ofPassage(row.id()));
            versions.walkOn(row.versionId(), row.environment());
            changes.record(AuditTrail.Entry.of("paseo", "passage ended", version.component() + " " + version.number())
                    .in(row.environment())
                    .because("its gate onward is open").with("passage", Long.toString(row.id())));
        } else if (after.status() == Passage.Status.OPEN) {
            if (mapper.live(row.environmentId(), version.componentId(), row.versionId()) == 0) {
                // Another version is live there: nobody can test this one now.
                gating.waits().gone(Gates.Standing.ofPassage(row.id()));
            } else if (after.settled()) {
                gate.ifPresent(each -> gating.waits().keep(atGate(row), each));
            }
            @Nullable
            Instant again = verdict.isEmpty() ? changes.now() : verdict.get().again().orElse(null);
            mapper.waits(row.id(), again, Optional.ofNullable(row.testFailure()).map(Passage::stays)
                    .or(() -> verdict.flatMap(Verdict::rejected))
                    .or(() -> verdict.flatMap(each -> each.judgements().stream()
                            .filter(judgement -> judgement.state() != Judgement.State.MET).map(Judgement::sentence)
                            .findFirst()))
                    .map(text -> Shortened.to(text, 2000)).orElse(null));
        }
        mapper.wakePlace(row.environmentId(), version.componentId(), changes.now());
        changes.publish("passage", Long.toString(row.id()));
        changes.publish("whereabouts", version.component());
    }

    /** Empty where git must be asked first. */
    private Optional<Evaluation> known(PassageRow row) {
        try {
            return Optional.of(gating.gates().evaluate(atGate(row)));
        } catch (Gates.AuthorsUnknown unknown) {
            return Optional.empty();
        }
    }

    /** Somebody says what they found about an item of its checklist. */
    void tick(long id, Person person, Tick tick, Optional<String> picture) {
        learn(passage(id));
        change(id, row -> {
            if (row.status() != Passage.Status.OPEN) {
                throw Refusal.conflict("Passage " + id + " has ended: nothing of it can be ticked any more");
            }
            Gates.AtGate at = atGate(row);
            gating.gates().tick(at.standing(), gating.gates().evaluate(at), person.id(), tick, picture);
            Versions.Version version = versions.byId(row.versionId());
            changes.record(AuditTrail.Entry
                    .of(person.name(), "item " + tick.outcome().name().toLowerCase(java.util.Locale.ROOT),
                            version.component() + " " + version.number())
                    .in(row.environment())
                    .because(tick.note()).with("item", tick.item()).with("passage", Long.toString(id)));
        });
    }

    /** Somebody approves or rejects that it leaves; a yes is taken back by {@code takenBack}. */
    void rule(long id, Person person, boolean yes, String comment, Optional<String> seen) {
        learn(passage(id));
        change(id, row -> {
            Gates.AtGate at = atGate(row);
            if (row.status() != Passage.Status.OPEN) {
                throw Refusal.conflict("Passage " + id + " has ended: nothing of it can be decided any more");
            }
            Evaluation gate = gating.gates().evaluate(at);
            gate.refusal(person.name()).ifPresent(why -> {
                throw Refusal.notAllowed(why);
            });
            if (comment.isEmpty() && (gate.needsComment() || !yes)) {
                throw Refusal.invalid("/comment",
                        yes ? row.environment() + " wants a comment with every decision" : "Say why it is rejected");
            }
            Gates.sameAsSeen(gate, yes, seen, "passage " + id);
            Optional<String> inPlaceOf = gating.gates().rule(at.standing(), gate, person, yes, comment);
            changes.record(gating.gates().stating(
                    AuditTrail.Entry
                            .of(person.name(), yes ? "approved" : "rejected",
                                    at.version().component() + " " + at.version().number())
                            .in(row.environment()).because(comment).with("passage", Long.toString(id))
                            .with("in place of", inPlaceOf.orElse("")).with("subject", gate.digest()),
                    at.standing()));
        });
    }
}

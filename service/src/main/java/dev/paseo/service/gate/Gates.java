package dev.paseo.service.gate;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Gate;
import dev.paseo.core.gate.GateDecision;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.GateInput;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Gates.Standing;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.restraint.Restraints;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Loads what a gate is judged on, and judges it. */
@Component
public class Gates {

    /** What stands at a gate: a deployment at the gate before an environment, or a passage at the gate onward. */
    public record Standing(@Nullable Long deployment, @Nullable Long passage) {
        public static Standing ofDeployment(long id) {
            return new Standing(id, null);
        }

        public static Standing ofPassage(long id) {
            return new Standing(null, id);
        }

        boolean leaves() {
            return passage != null;
        }
    }

    /**
     * Something at a gate, with all that is asked more than once; {@code requester} is empty for what is automatic,
     * {@code requestedAt} is what times are counted from.
     *
     * @param environment that the gate is of, with its rules
     */
    public record AtGate(Standing standing, Environments.Place place, Environments.Environment environment,
            Versions.Version version, Optional<Versions.Version> live, String requester,
            Instant requestedAt, Kind kind, Optional<InSet> set) {

        /** The same together with other members of its set. */
        public AtGate with(List<AtGate> others) {
            return new AtGate(standing, place, environment, version, live, requester, requestedAt, kind,
                    Optional.of(new InSet(true, others)));
        }
    }

    /**
     * A member of a set.
     *
     * @param first  it stands at the gate for all of them; the others follow without a gate of their own
     * @param others the other members, as they would stand
     */
    public record InSet(boolean first, List<AtGate> others) {}

    /** Authors are not known yet: they have to be learned outside the transaction first. */
    public static final class AuthorsUnknown extends RuntimeException {
        AuthorsUnknown() {
            super("the authors of what is proposed are not known yet");
        }
    }

    private final FactsOfGates facts;
    private final Restraints restraints;
    private final Secrets secrets;
    private final ServiceClock clock;

    Gates(FactsOfGates facts, Restraints restraints, Secrets secrets, ServiceClock clock) {
        this.facts = facts;
        this.restraints = restraints;
        this.secrets = secrets;
        this.clock = clock;
    }

    /** Loads the gate once, for all that anybody wants to know of it. */
    public Evaluation evaluate(AtGate at) {
        List<AtGate> others = at.set().filter(InSet::first).map(InSet::others).orElse(List.of());
        List<Criterion> asked = asked(at);
        return new Evaluation(
                new GateInput(at.place().environment(), at.set().filter(set -> !set.first()).isPresent(), asked,
                        facts(at, asked), others.stream().map(this::member).toList()),
                clock.now());
    }

    private GateInput.Member member(AtGate other) {
        List<Criterion> asked = asked(other);
        return new GateInput.Member(other.version().component(), other.version().number(), other.version().blocked(),
                asked, facts(other, asked.stream().filter(criterion -> !Gate.asksPeople(criterion)).toList()));
    }

    /** What its rules ask, without what only its place asks. */
    private static List<Criterion> own(AtGate at) {
        return at.standing().leaves() ? at.environment().rules().toGoOn(at.place().component())
                : at.environment().rules().toEnter(at.kind(), at.place().component());
    }

    private static List<Criterion> asked(AtGate at) {
        List<Criterion> own = own(at);
        return at.set().filter(InSet::first)
                .map(set -> Gate.ofSet(own, set.others().stream().map(Gates::asked).toList())).orElse(own);
    }

    private GateFacts facts(AtGate at, List<Criterion> criteria) {
        GateFacts.Around around = at.standing().leaves() ? GateFacts.Around.PLAIN : restraints.around(
                at.place(), at.environment(), at.version(), at.kind(),
                at.set().map(InSet::others).orElse(List.of()).stream().collect(
                        Collectors.toMap(other -> other.version().component(), other -> other.version().number())));
        return facts.load(at, criteria, subject(at), around);
    }

    /** What criteria of other rules would be judged on, of something that stood at a gate: as it is known now. */
    public GateFacts known(AtGate at, List<Criterion> criteria, Subject approved) {
        return facts.load(at, criteria, approved, GateFacts.Around.PLAIN);
    }

    /** The digest of what an approval would approve now. */
    public String digest(AtGate at) {
        return subject(at).digest();
    }

    /** What an approval would approve now. */
    public Subject subject(AtGate at) {
        List<String> names = at.version().recipe().map(recipe -> recipe.secrets()).orElse(List.of());
        long revision = secrets.revisionsWithHosts(names, at.place().componentId(), at.place().environmentId())
                .values().stream()
                .mapToLong(Long::longValue).max().orElse(0);
        String version = Subject.ofSet(at.version().digest(), at.set().filter(InSet::first).map(InSet::others)
                .orElse(List.of()).stream().map(this::digest).toList());
        return new Subject(version, at.place().settingsRevision(), revision, at.environment().rulesRevision(),
                at.place().liveDeployment().orElse(0L));
    }

    /** What people have said there, each decision that was not taken back. */
    public List<GateDecision> decisions(Standing standing) {
        return facts.decisions(standing);
    }

    /** The checklists of a gate, whatever else is known of it. */
    public List<Criterion.Checklist> checklists(AtGate at) {
        return Evaluation.checklists(asked(at));
    }

    /** What comes of a condition over facts now. */
    public Judgement fact(AtGate at, String condition) {
        List<Criterion> only = List.of(new Criterion.Fact(condition));
        return Gate.judge(only, facts.load(at, only, subject(at), GateFacts.Around.PLAIN), clock.now())
                .judgements().getFirst();
    }

    /** Nobody approves what was not shown, or what has changed since it was. */
    public static void sameAsSeen(Evaluation gate, boolean yes, Optional<String> seen, String where) {
        if (yes && seen.isEmpty()) {
            throw Refusal.invalid("/subject", "should be the subject that was looked at, as " + where
                    + " tells it: nobody approves what was not shown");
        }
        if (seen.filter(subject -> !subject.equals(gate.digest())).isPresent()) {
            throw Refusal
                    .conflict("What would be deployed has changed since you looked at it: look again, then decide");
        }
    }
}

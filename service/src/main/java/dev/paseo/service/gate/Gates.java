package dev.paseo.service.gate;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Approving;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Gate;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Ruling;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Tick;
import dev.paseo.core.gate.Ticking;
import dev.paseo.core.gate.Verdict;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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

    /** Something at a gate; {@code requester} is empty for what is automatic, {@code requestedAt} is what times are counted from. */
    public record AtGate(Standing standing, Environments.Place place, Versions.Sealed version, Optional<Versions.Sealed> live, String requester,
            Instant requestedAt, Kind kind, Optional<InSet> set) {

        /** The same together with other members of its set. */
        public AtGate with(List<AtGate> others) {
            return new AtGate(standing, place, version, live, requester, requestedAt, kind, Optional.of(new InSet(true, others)));
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

    private final RulingMapper mapper;
    private final Environments environments;
    private final FactsOfGates facts;
    private final Sources sources;

    /** Where the parts of a subject come from. */
    @Component
    record Sources(Secrets secrets, ServiceClock clock, Restraints restraints, Json json) {}

    Gates(RulingMapper mapper, Environments environments, FactsOfGates facts, Sources sources) {
        this.mapper = mapper;
        this.environments = environments;
        this.facts = facts;
        this.sources = sources;
    }

    public Verdict judge(AtGate at) {
        if (at.set().filter(set -> !set.first()).isPresent()) {
            return Verdict.OPEN;
        }
        Loaded loaded = load(at);
        Verdict verdict = Gate.judge(loaded.criteria(), loaded.facts(), sources.clock().now());
        return at.set().map(set -> together(verdict, set.others())).orElse(verdict);
    }

    /** One gate for a set: people decide once, about all; what time and facts bring about has to hold for each. */
    private Verdict together(Verdict first, List<AtGate> others) {
        List<Judgement> judgements = new ArrayList<>(first.judgements());
        others.forEach(other -> {
            if (other.version().blocked()) {
                judgements.add(new Judgement(Judgement.State.NOT_MET, other.version().component() + ": Not blocked", other.version().number() + " is blocked.", Optional.empty()));
            }
            Loaded loaded = load(other, criterion -> !(criterion instanceof Criterion.Approvals || criterion instanceof Criterion.Checklist || criterion instanceof Criterion.Outside));
            Gate.judge(loaded.criteria(), loaded.facts(), sources.clock().now()).judgements().forEach(judgement -> judgements.add(new Judgement(judgement.state(),
                    other.version().component() + ": " + judgement.name(), judgement.sentence(), judgement.until())));
        });
        return new Verdict(judgements, first.rejected(), first.expired());
    }

    /** A gate with its facts. */
    private record Loaded(List<Criterion> criteria, GateFacts facts) {}

    /** What its rules ask, without what only its place asks. */
    private List<Criterion> asked(AtGate at, Environments.Known environment) {
        return at.standing().leaves() ? environment.rules().toGoOn(at.place().component()) : environment.rules().toEnter(at.kind(), at.place().component());
    }

    private List<Criterion> asked(AtGate at) {
        return asked(at, environments.byId(at.place().environmentId()));
    }

    private Loaded load(AtGate at) {
        return load(at, criterion -> true);
    }

    private Loaded load(AtGate at, Predicate<Criterion> which) {
        List<Criterion> criteria = new ArrayList<>(asked(at).stream().filter(which).toList());
        GateFacts.Around around = at.standing().leaves() ? GateFacts.Around.PLAIN : sources.restraints().around(at.place(), at.version(), at.kind(),
                at.set().map(InSet::others).orElse(List.of()).stream().collect(Collectors.toMap(other -> other.version().component(), other -> other.version().number())));
        around.held().ifPresent(held -> criteria.add(new Criterion.NotHeld()));
        around.closed().ifPresent(closed -> criteria.add(new Criterion.NotClosed()));
        around.tested().ifPresent(tested -> criteria.add(new Criterion.PreviousPassed()));
        if (!around.requirements().isEmpty()) {
            criteria.add(new Criterion.Requires());
        }
        return new Loaded(criteria, facts.load(at, criteria, subject(at), around));
    }

    /** The digest of what an approval would approve now. */
    public String digest(AtGate at) {
        return subject(at).digest();
    }

    private Subject subject(AtGate at) {
        Environments.Known environment = environments.byId(at.place().environmentId());
        List<String> names = at.version().recipe().map(recipe -> recipe.secrets()).orElse(List.of());
        long secrets = sources.secrets().revisionsWithHosts(names, at.place().componentId(), at.place().environmentId()).values().stream()
                .mapToLong(Long::longValue).max().orElse(0);
        String version = at.set().filter(InSet::first).map(set -> Tokens.hash(at.version().digest() + set.others().stream().map(other -> digest(other)).collect(Collectors.joining())))
                .orElse(at.version().digest());
        return new Subject(version, at.place().settingsRevision(), secrets, environment.rulesRevision(),
                at.place().liveDeployment().orElse(0L));
    }

    public List<Ruling> rulings(Standing standing) {
        return facts.rulings(standing);
    }

    /** What somebody said about an item, and the digest of the picture that they gave with it. */
    public record Ticked(String item, String by, String outcome, String note, Optional<String> picture, Instant at) {}

    public List<Ticked> ticks(Standing standing) {
        return mapper.ticks(standing.deployment(), standing.passage()).stream().map(row -> new Ticked(row.item(), row.by(), row.outcome().toLowerCase(java.util.Locale.ROOT), row.note(),
                Optional.ofNullable(row.picture()), row.at())).toList();
    }

    /** When it expires because nobody decided. */
    Optional<Instant> expiry(AtGate at) {
        return asked(at).stream().flatMap(criterion -> switch (criterion) {
            case Criterion.Approvals approvals -> approvals.within().stream();
            case Criterion.Outside outside -> outside.within().stream();
            default -> Stream.<java.time.Duration>empty();
        }).map(at.requestedAt()::plus).min(Instant::compareTo);
    }

    /** Those outside who are asked at a gate. */
    List<Criterion.Outside> outside(AtGate at) {
        return asked(at).stream().filter(Criterion.Outside.class::isInstance).map(Criterion.Outside.class::cast).toList();
    }

    /** The checklists of a gate. */
    public List<Criterion.Checklist> checklists(AtGate at) {
        return asked(at).stream().filter(Criterion.Checklist.class::isInstance).map(Criterion.Checklist.class::cast).toList();
    }

    /** Why this person may not decide here, if so. */
    public Optional<String> refusal(AtGate at, String person) {
        Loaded loaded = load(at);
        List<Optional<String>> refusals = loaded.criteria().stream().filter(Criterion.Approvals.class::isInstance)
                .map(criterion -> Approving.refusal((Criterion.Approvals) criterion, loaded.facts(), sources.clock().now(), person)).toList();
        if (refusals.isEmpty()) {
            return Optional.of(at.place().environment() + " asks nobody to decide");
        }
        return refusals.stream().anyMatch(Optional::isEmpty) ? Optional.empty() : refusals.getFirst();
    }

    /** Why this person may not tick here, if so. */
    public Optional<String> tickRefusal(AtGate at, String person) {
        Loaded loaded = load(at);
        List<Optional<String>> refusals = loaded.criteria().stream().filter(Criterion.Checklist.class::isInstance)
                .map(criterion -> Ticking.refusal((Criterion.Checklist) criterion, loaded.facts(), person)).toList();
        return refusals.isEmpty() ? Optional.of(at.place().environment() + " has no checklist") : refusals.stream().anyMatch(Optional::isEmpty) ? Optional.empty() : refusals.getFirst();
    }

    /** What comes of a condition over facts now. */
    public Judgement fact(AtGate at, String condition) {
        List<Criterion> only = List.of(new Criterion.Fact(condition));
        return Gate.judge(only, facts.load(at, only, subject(at), GateFacts.Around.PLAIN), sources.clock().now()).judgements().getFirst();
    }

    /** Whom a gate asks now: who could approve, and who could tick an item that is not ticked yet. */
    record Asked(Set<String> deciders, Set<String> tickers) {}

    Asked whoIsAsked(AtGate at) {
        Loaded loaded = load(at);
        Instant now = sources.clock().now();
        Asked asked = new Asked(new TreeSet<>(), new TreeSet<>());
        for (Criterion criterion : loaded.criteria()) {
            if (Gate.judge(List.of(criterion), loaded.facts(), now).judgements().getFirst().state() != Judgement.State.ASKED) {
                continue;
            }
            if (criterion instanceof Criterion.Approvals approvals) {
                people(loaded, Approving.asked(approvals, loaded.facts(), now)).filter(person -> Approving.refusal(approvals, loaded.facts(), now, person).isEmpty())
                        .forEach(asked.deciders()::add);
            } else if (criterion instanceof Criterion.Checklist list) {
                people(loaded, list.from()).filter(person -> Ticking.refusal(list, loaded.facts(), person).isEmpty()).forEach(asked.tickers()::add);
            }
        }
        return asked;
    }

    private static Stream<String> people(Loaded loaded, List<String> asked) {
        GateFacts.People people = loaded.facts().people();
        return Stream.concat(asked.stream().flatMap(name -> people.members().getOrDefault(name, Set.of()).stream()), people.standIns().keySet().stream());
    }

    public boolean needsComment(AtGate at) {
        return asked(at).stream()
                .anyMatch(criterion -> criterion instanceof Criterion.Approvals approvals && approvals.commentRequired());
    }

    /** Writes a ruling down, in the transaction under way; in whose place it was made. */
    public Optional<String> rule(AtGate at, Person person, boolean yes, String comment) {
        Subject subject = subject(at);
        Loaded loaded = load(at);
        Instant now = sources.clock().now();
        Optional<String> inPlaceOf = approvals(loaded).filter(criterion -> Approving.refusal(criterion, loaded.facts(), now, person.name()).isEmpty())
                .flatMap(criterion -> Approving.inPlaceOf(criterion, loaded.facts(), now, person.name()).stream()).findFirst();
        mapper.add(at.standing().deployment(), at.standing().passage(), person.id(), inPlaceOf.orElse(null), yes, comment, subject.digest(), sources.json().write(subject), now);
        return inPlaceOf;
    }

    private static Stream<Criterion.Approvals> approvals(Loaded loaded) {
        return loaded.criteria().stream().filter(Criterion.Approvals.class::isInstance).map(Criterion.Approvals.class::cast);
    }

    /** Why a decision here cannot be handed on to somebody. */
    public Optional<String> handOnRefusal(AtGate at, String to) {
        Loaded loaded = load(at);
        List<Optional<String>> refusals = approvals(loaded).map(criterion -> Approving.handOnRefusal(criterion, loaded.facts(), to)).toList();
        return refusals.stream().anyMatch(Optional::isEmpty) ? Optional.empty() : refusals.stream().flatMap(Optional::stream).findFirst();
    }

    /** Takes back what this person approved; whether there was anything. */
    public boolean takeBack(Standing standing, long account) {
        return mapper.takeBack(standing.deployment(), standing.passage(), account, sources.clock().now()) > 0;
    }

    /** Writes a tick down, in the transaction under way; refused where the item is not on a list that this person ticks. */
    public void tick(AtGate at, long account, Tick tick, Optional<String> picture) {
        Loaded loaded = load(at);
        List<String> items = checklists(at).stream().flatMap(list -> list.items().stream()).toList();
        List<Criterion.Checklist> with = checklists(at).stream().filter(list -> list.items().contains(tick.item())).toList();
        if (with.isEmpty()) {
            throw Refusal.notFound("\"" + tick.item() + "\" is not on the list" + NearestName.hint(tick.item(), items) + (items.isEmpty() ? "" : "; on it are: " + String.join("; ", items)));
        }
        Optional<String> refusal = with.stream().map(list -> Ticking.refusal(list, loaded.facts(), tick.by())).reduce((one, other) -> one.isEmpty() ? one : other).orElseThrow();
        refusal.ifPresent(why -> {
            throw Refusal.notAllowed(why);
        });
        mapper.addTick(at.standing().deployment(), at.standing().passage(), account, tick, picture.orElse(null));
    }

    /** From now on the other decides about this deployment in this one's place. */
    public void standIn(long account, long deputy, long deployment) {
        mapper.addStandIn(account, deputy, deployment, sources.clock().now(), account);
    }
}

package dev.paseo.service.loosening;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Agreement;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.loosening.WantedMapper.WantedRow;
import dev.paseo.service.loosening.WantedMapper.WordRow;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.JsonNode;

/**
 * Loosenings wait for a second person where an environment's rules ask one: nothing of them counts before, and exactly
 * what was shown does afterwards.
 */
@Component
public class Agreements implements EffectHandler {

    static final String KIND = "loosening";
    private static final Logger LOG = LoggerFactory.getLogger(Agreements.class);
    private static final TypeReference<Map<String, List<String>>> ASKED = new TypeReference<>() {};
    private static final TypeReference<List<String>> SENTENCES = new TypeReference<>() {};
    private static final int LONGEST = 1000;

    /** Carries out what was agreed to; refused where it no longer can be, or who wants it no longer may. */
    public interface Carrier {
        /** As {@link Wanted} names it. */
        String kind();

        void carryOut(String body, Person by, String agreedBy);

        /** The environments that ask a second person by now, where that may have changed since it was wanted. */
        default Set<String> asks(String body) {
            return Set.of();
        }
    }

    /**
     * Which environments that a component reaches ask a second person, and whom; known by whoever knows environments.
     */
    public interface Askers {
        Map<String, List<String>> ofComponent(String component);
    }

    /** Whoever tells people. */
    public interface Hearer {
        /** In the transaction that notes it. */
        void asked(long id, String by, List<String> what, Set<String> people);

        void ended(long id, String by, String sentence);
    }

    private final WantedMapper mapper;
    private final Accounts accounts;
    private final Around around;
    private final ObjectProvider<Carrier> carriers;
    private final ObjectProvider<Hearer> hearers;

    /** How it is written down. */
    @Component("agreementsAround")
    record Around(Changes changes, Json json, Effects effects) {}

    Agreements(WantedMapper mapper, Accounts accounts, Around around, ObjectProvider<Carrier> carriers,
            ObjectProvider<Hearer> hearers) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.around = around;
        this.carriers = carriers;
        this.hearers = hearers;
    }

    /**
     * Where an environment asks a second person, it is written down and waits, and whoever wants it is told so by the
     * refusal; outside any transaction.
     */
    public void ask(Wanted wanted, Person by) {
        if (wanted.asked().isEmpty()) {
            return;
        }
        String what = around.json().write(wanted.what());
        String digest = Sha256.hex(wanted.kind() + "\n" + what + "\n" + wanted.body());
        long id = around.changes().in(() -> mapper.same(digest, by.name()).map(WantedRow::id).orElseGet(() -> {
            WantedMapper.NewWanted row = new WantedMapper.NewWanted(wanted, what, digest,
                    around.json().write(wanted.asked()), by.id(), around.changes().now());
            mapper.add(row);
            around.changes()
                    .record(LooseningStates.into(
                            AuditTrail.Entry.of(by.name(), "loosening wanted", wanted.kind())
                                    .because(String.join("; ", wanted.what())).with("loosening", Long.toString(row.id)),
                            row.id, mapper));
            Set<String> people = agreement(mapper.byId(row.id).orElseThrow()).people();
            hearers.forEach(hearer -> hearer.asked(row.id, by.name(), wanted.what(), people));
            around.changes().publish("loosening", Long.toString(row.id));
            return row.id;
        }));
        throw Refusal.waits("Nothing is changed yet: it loosens what is asked for "
                + String.join(" and ", wanted.asked().keySet()) + ", and waits as loosening " + id + " until "
                + wanted.asked().entrySet().stream().map(each -> "one of " + String.join(" or ", each.getValue()))
                        .distinct().collect(Collectors.joining(" and "))
                + " agrees, other than you; see paseo loosening show " + id);
    }

    private Agreement agreement(WantedRow row) {
        Map<String, Set<String>> asked = new LinkedHashMap<>();
        around.json().read(row.asked(), ASKED).forEach((environment, names) -> asked.put(environment,
                accounts.meant(names).values().stream().flatMap(Set::stream).collect(Collectors.toSet())));
        return new Agreement(row.by(), asked,
                mapper.words(row.id()).stream().filter(WordRow::yes).map(WordRow::by).collect(Collectors.toSet()));
    }

    /**
     * A loosening as it stands.
     *
     * @param what    all that it changes, as sentences
     * @param text    the environments file that would be loaded; empty for what is no file
     * @param subject to be sent along with what is said about it
     * @param asked   groups and persons of whom one agrees, by environment
     * @param until   when it is wanted anew, where nobody agrees
     * @param people  who may agree now
     * @param agreed  everybody who is asked has agreed, and it is carried out now
     * @param status  open, done, refused, withdrawn, expired or failed
     * @param ending  how it ended, as a sentence
     */
    public record LooseningView(long id, String kind, List<String> what, Optional<String> text, String subject,
            Map<String, List<String>> asked, String by, Instant at, Instant until,
            Set<String> people, boolean agreed, List<WordView> words, String status, Optional<String> ending,
            Optional<Instant> endedAt) {}

    /** What somebody said about a loosening. */
    public record WordView(String by, boolean yes, String comment, Instant at) {}

    List<LooseningView> newest() {
        return mapper.newest().stream().map(this::view).toList();
    }

    /** Those that this person may agree to. */
    public List<LooseningView> waitingFor(String person) {
        return mapper.open().stream().map(this::view).filter(each -> each.people().contains(person)).toList();
    }

    LooseningView one(long id) {
        return view(row(id));
    }

    private WantedRow row(long id) {
        return mapper.byId(id).orElseThrow(() -> Refusal.notFound("There is no loosening " + id));
    }

    private LooseningView view(WantedRow row) {
        Optional<Agreement> open = Optional.of(row).filter(each -> each.status().equals("open")).map(this::agreement);
        return new LooseningView(row.id(), row.kind(), around.json().read(row.what(), SENTENCES),
                row.kind().equals("rules")
                        ? Optional.of(around.json().read(row.body(), JsonNode.class).path("text").asString(""))
                        : Optional.empty(),
                row.digest(), around.json().read(row.asked(), ASKED), row.by(), row.at(),
                row.at().plus(Agreement.EXPIRES), open.map(Agreement::people).orElse(Set.of()),
                open.filter(each -> each.open().isEmpty()).isPresent(),
                mapper.words(row.id()).stream()
                        .map(word -> new WordView(word.by(), word.yes(), word.comment(), word.at())).toList(),
                row.status(), Optional.ofNullable(row.ending()), Optional.ofNullable(row.endedAt()));
    }

    /** Agrees to exactly what was looked at, or refuses it. */
    LooseningView say(long id, Person person, boolean yes, String comment, String subject) {
        around.changes().run(() -> {
            mapper.lock(row(id).id());
            WantedRow row = row(id);
            waits(row);
            agreement(row).refusal(person.name()).ifPresent(why -> {
                throw Refusal.notAllowed(why);
            });
            if (!subject.equals(row.digest())) {
                throw Refusal.conflict("This is not what loosening " + id + " would change: look again, then decide");
            }
            if (!yes && comment.isBlank()) {
                throw Refusal.invalid("/comment", "Say why it is refused");
            }
            mapper.say(id, person.id(), yes, comment.strip(), around.changes().now());
            around.changes()
                    .record(LooseningStates.into(AuditTrail.Entry
                            .of(person.name(), yes ? "loosening agreed to" : "loosening refused", row.kind())
                            .because(comment.strip())
                            .with("loosening", Long.toString(id)).with("wanted by", row.by()), id, mapper));
            if (!yes) {
                ended(row, "refused", person.name() + " refused it: " + comment.strip());
            } else if (agreement(row).open().isEmpty()) {
                around.effects().add(KIND + " " + id, KIND + " " + id, KIND, Long.toString(id));
            }
            around.changes().publish("loosening", Long.toString(id));
        });
        return one(id);
    }

    private void waits(WantedRow row) {
        if (!row.status().equals("open") || Agreement.expired(row.at(), around.changes().now())) {
            throw Refusal.conflict("Loosening " + row.id() + " no longer waits: it is "
                    + (row.status().equals("open") ? "expired" : row.status())
                    + Optional.ofNullable(row.ending()).map(why -> " (" + why + ")").orElse(""));
        }
    }

    /** Whoever wanted it takes it back. */
    LooseningView withdraw(long id, Person person) {
        around.changes().run(() -> {
            mapper.lock(row(id).id());
            WantedRow row = row(id);
            waits(row);
            if (!row.by().equals(person.name())) {
                throw Refusal.notAllowed("Only " + row.by() + ", who asked for loosening " + id
                        + ", may withdraw it; whoever is asked may refuse it");
            }
            around.changes().record(AuditTrail.Entry.of(person.name(), "loosening withdrawn", row.kind())
                    .with("loosening", Long.toString(id)));
            ended(row, "withdrawn", person.name() + " took it back");
        });
        return one(id);
    }

    private void ended(WantedRow row, String status, String sentence) {
        if (mapper.end(row.id(), status, Shortened.to(sentence, LONGEST), around.changes().now()) == 1) {
            hearers.forEach(hearer -> hearer.ended(row.id(), row.by(), sentence));
            around.changes().publish("loosening", Long.toString(row.id()));
        }
    }

    @Override
    public String kind() {
        return KIND;
    }

    /** All have agreed. */
    @Override
    public void perform(String body) {
        WantedRow row = row(Long.parseLong(body));
        if (!row.status().equals("open") || !agreement(row).open().isEmpty()) {
            return;
        }
        String agreedBy = mapper.words(row.id()).stream().filter(WordRow::yes).map(WordRow::by)
                .collect(Collectors.joining(", "));
        try {
            Carrier carrier = carriers.stream().filter(each -> each.kind().equals(row.kind())).findFirst()
                    .orElseThrow();
            around.changes().run(() -> {
                Person by = accounts.named(row.by());
                if (!accounts.isActive(by.id())) {
                    throw Refusal.conflict(row.by() + ", who asked for it, may no longer sign in");
                }
                Set<String> unasked = new TreeSet<>(carrier.asks(row.body()));
                unasked.removeAll(around.json().read(row.asked(), ASKED).keySet());
                if (!unasked.isEmpty()) {
                    throw Refusal.conflict(String.join(" and ", unasked)
                            + " asks for a second person too by now, and nobody was asked there: ask for it again");
                }
                carrier.carryOut(row.body(), by, agreedBy);
                ended(row, "done", agreedBy + " agreed, and it is so now");
            });
        } catch (Refusal refused) {
            around.changes().run(() -> {
                around.changes().record(AuditTrail.Entry.of("paseo", "loosening not carried out", row.kind())
                        .because(String.valueOf(refused.getMessage())).with("loosening", Long.toString(row.id())));
                ended(row, "failed", agreedBy + " agreed, but nothing is changed: " + refused.getMessage());
            });
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("loosening {} was agreed to and could not be carried out: {}", body, error);
        WantedRow row = row(Long.parseLong(body));
        around.changes()
                .run(() -> ended(row, "failed", "it was agreed to, but nothing is changed: see the service's log"));
    }

    /** What nobody agreed to in a week is over, and says so. */
    @Scheduled(fixedDelay = 60_000)
    void expire() {
        mapper.old(around.changes().now().minus(Agreement.EXPIRES)).forEach(row -> around.changes().run(() -> {
            around.changes().record(AuditTrail.Entry.of("paseo", "loosening expired", row.kind()).with("loosening",
                    Long.toString(row.id())));
            ended(row, "expired", "nobody agreed within " + Agreement.EXPIRES.toDays() + " days");
        }));
    }
}

package dev.paseo.service.deputy;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.deputy.DeputyMapper.DeputyRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Who decides and ticks in another's place for a time; the two of them count once. */
@Component
class Deputies {

    private static final Logger LOG = LoggerFactory.getLogger(Deputies.class);
    private static final Duration LONGEST = Duration.ofDays(366);

    private final DeputyMapper mapper;
    private final Accounts accounts;
    private final Environments environments;
    private final Changes changes;
    private Instant looked;

    Deputies(DeputyMapper mapper, Accounts accounts, Environments environments, Changes changes) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.environments = environments;
        this.changes = changes;
        this.looked = Instant.EPOCH;
    }

    /** Those of now and those to come: of everybody for who manages accounts, else one's own. */
    List<DeputyRow> seenBy(Person person) {
        boolean all = person.mayAnywhere(Action.MANAGE_ACCOUNTS);
        return mapper.all(changes.now()).stream()
                .filter(row -> all || row.account().equals(person.name()) || row.deputy().equals(person.name()))
                .toList();
    }

    void set(String account, String deputy, Instant from, Instant until, Person by) {
        if (!account.equals(by.name()) && !by.mayAnywhere(Action.MANAGE_ACCOUNTS)) {
            throw Refusal.notAllowed(
                    by.name() + " may name a deputy only for themselves; an administrator may name one for others");
        }
        long principal = accounts.idOf(account);
        long other = accounts.idOf(deputy);
        if (principal == other) {
            throw Refusal.invalid("/deputy", account + " cannot be their own deputy");
        }
        if (!accounts.named(deputy).mayAnywhere(Action.DECIDE)) {
            throw Refusal.conflict(deputy + " has no role that decides");
        }
        Instant now = changes.now();
        if (!until.isAfter(from) || !until.isAfter(now) || until.isAfter(now.plus(LONGEST))) {
            throw Refusal.invalid("/until",
                    "should be after its beginning, in the future, and at most " + LONGEST.toDays()
                            + " days ahead");
        }
        changes.run(() -> {
            mapper.add(principal, other, from, until, by.id());
            changes.record(AuditTrail.Entry.of(by.name(), "deputy set", account).with("deputy", deputy)
                    .with("from", from.toString()).with("until", until.toString()));
            changed();
        });
    }

    /** By the one who was away, by the deputy, or by an administrator. */
    void end(long id, Person by) {
        DeputyRow row = mapper.byId(id)
                .orElseThrow(() -> Refusal.notFound("There is no deputy " + id + ", or it has ended"));
        if (!row.account().equals(by.name()) && !row.deputy().equals(by.name())
                && !by.mayAnywhere(Action.MANAGE_ACCOUNTS)) {
            throw Refusal
                    .notAllowed("Only " + row.account() + ", " + row.deputy() + " and an administrator may end this");
        }
        changes.run(() -> {
            if (mapper.lift(id, changes.now()) == 1) {
                changes.record(
                        AuditTrail.Entry.of(by.name(), "deputy ended", row.account()).with("deputy", row.deputy()));
                changed();
            }
        });
    }

    private void changed() {
        environments.wakeAll();
        changes.publish("deputy", "all");
    }

    /** With one that begins or ends, others are asked: what waits is judged again. */
    @Scheduled(fixedDelay = 1000)
    void sweep() {
        try {
            Instant now = changes.now();
            if (mapper.changed(looked, now) > 0) {
                environments.wakeAll();
            }
            looked = now;
        } catch (RuntimeException failed) {
            LOG.warn("deputies that begin or end are not seen for the moment: {}", failed.toString());
        }
    }
}

package dev.paseo.service.access;

import dev.paseo.core.text.Sha256;
import dev.paseo.core.text.When;
import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Scope;
import dev.paseo.language.NearestName;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Personal tokens: made by their owner, limited to what they are for, listed and revoked. Only their SHA-256 is kept.
 */
@Component
public class PersonalTokens {

    static final int LONGEST_DAYS = 365;
    static final int USUAL_DAYS = 90;
    /** How exactly it is known when a token was used last. */
    private static final Duration USED = Duration.ofMinutes(1);

    private final Changes changes;
    private final TokenMapper mapper;
    private final Accounts accounts;
    private final AccountStates states;

    PersonalTokens(TokenMapper mapper, Accounts accounts, Changes changes, AccountStates states) {
        this.changes = changes;
        this.mapper = mapper;
        this.accounts = accounts;
        this.states = states;
    }

    private void record(AuditTrail.Entry entry, String owner) {
        changes.record(entry.stating(AccountStates.subject(owner), states.text(owner)));
    }

    /**
     * What a token is to be.
     *
     * @param may       what it may of what its owner may; none: all of it
     * @param component the only component that it may do this for
     * @param days      how long it is good, 1 to 365
     */
    public record Wanted(String description, List<String> may, Optional<String> component, int days) {

        /** One that can publish versions of a component and nothing else. */
        public static Wanted toPublish(String component, String description) {
            return new Wanted(description, List.of(Action.PUBLISH.word()), Optional.of(component), USUAL_DAYS);
        }
    }

    /** A new token of this account. It is shown this once. */
    public String make(long account, String owner, Wanted wanted) {
        wanted.may().stream().filter(word -> Action.named(word).isEmpty()).findFirst().ifPresent(word -> {
            throw Refusal.invalid("/may", "There is no action " + word
                    + NearestName.hint(word, Arrays.stream(Action.values()).map(Action::word).toList()));
        });
        if (wanted.component().isPresent() && wanted.may().isEmpty()) {
            throw Refusal.invalid("/may", "A token for one component needs the actions that it may do there");
        }
        if (wanted.days() < 1 || wanted.days() > LONGEST_DAYS) {
            throw Refusal.invalid("/days", "A token is good for 1 to " + LONGEST_DAYS + " days");
        }
        if (wanted.description().isBlank() || wanted.description().length() > 120) {
            throw Refusal.invalid("/description", "A description has 1 to 120 characters and says who uses the token");
        }
        String token = Tokens.fresh(wanted.may().isEmpty() ? "paseo-token" : "paseo-limited");
        Instant now = changes.now();
        changes.run(() -> {
            accounts.hold(owner);
            mapper.add(Sha256.hex(token), account, wanted.description(),
                    wanted.may().isEmpty() ? null : String.join(",", wanted.may()), wanted.component().orElse(null),
                    now,
                    now.plus(Duration.ofDays(wanted.days())));
            record(AuditTrail.Entry.of(owner, "token made", owner).with("description", wanted.description())
                    .with("may", wanted.may().isEmpty() ? "all that its owner may" : String.join(", ", wanted.may()))
                    .with("component", wanted.component().orElse("")).with("days", Integer.toString(wanted.days())),
                    owner);
        });
        return token;
    }

    /** Who signs in with this token, and no more of them than it may. */
    public Optional<Person> bearer(String token) {
        Instant now = changes.now();
        return mapper.bearer(Sha256.hex(token), now).flatMap(row -> {
            if (row.usedAt() == null || row.usedAt().plus(USED).isBefore(now)) {
                mapper.used(row.token(), now);
            }
            Person owner = accounts.person(row.id(), row.name());
            return row.may() == null ? Optional.of(owner) : scope(row).map(owner::within);
        });
    }

    /** Why a token lets nobody in, as a sentence for whoever has it. */
    public String whyNot(String token) {
        Instant now = changes.now();
        return mapper.standing(Sha256.hex(token)).map(row -> {
            if (row.disabledAt() != null) {
                return "The account " + row.account() + " is disabled; ask an administrator";
            }
            if (row.revokedAt() != null) {
                return "This token of " + row.account() + " was revoked by " + row.revokedBy() + " on "
                        + When.utc(row.revokedAt()) + "; sign in again";
            }
            return row.expiresAt().isAfter(now) ? "This token is for a component that is no longer there; make another"
                    : "This token of " + row.account() + " expired on " + When.utc(row.expiresAt())
                            + "; sign in again";
        }).orElse("This token is unknown here: it was made by another service, or is not complete; sign in again");
    }

    /** A scope that cannot be read, or that is of a component that is gone, lets nobody in. */
    private static Optional<Scope> scope(TokenMapper.BearerRow row) {
        return row.componentId() != null && row.component() == null ? Optional.empty()
                : Scope.of(List.of(String.valueOf(row.may()).split(",")), Optional.ofNullable(row.component()));
    }

    /** A token as it is listed; {@code may} is empty where it may all that its owner may. */
    public record Listed(long id, String description, List<String> may, Optional<String> component, Instant madeAt,
            Instant until, Optional<Instant> lastUsed) {}

    List<Listed> of(long account) {
        return mapper.of(account, changes.now()).stream()
                .map(row -> new Listed(row.id(), row.label(), words(row.may()), Optional.ofNullable(row.component()),
                        row.createdAt(), row.expiresAt(),
                        Optional.ofNullable(row.usedAt())))
                .toList();
    }

    private static List<String> words(@Nullable String may) {
        return may == null ? List.of() : List.of(may.split(","));
    }

    void revoke(long account, String owner, long token, String by) {
        String description = mapper.of(account, changes.now()).stream().filter(row -> row.id() == token).findFirst()
                .map(TokenMapper.TokenRow::label)
                .orElseThrow(() -> Refusal.notFound(owner + " has no token " + token + " (paseo token list)"));
        changes.run(() -> {
            accounts.hold(owner);
            if (mapper.revoke(token, account, by, changes.now()) == 1) {
                record(AuditTrail.Entry.of(by, "token revoked", owner).with("token", Long.toString(token)).with(
                        "description",
                        description), owner);
            }
        });
    }

    /** The one that somebody signs out with. */
    public void revoke(String token) {
        Instant now = changes.now();
        mapper.bearer(Sha256.hex(token), now).ifPresent(row -> changes.run(() -> {
            accounts.hold(row.name());
            mapper.revokeByHash(Sha256.hex(token), row.name(), now);
            record(AuditTrail.Entry.of(row.name(), "token revoked", row.name())
                    .with("token", Long.toString(row.token())).with("description", "the one signed out with"),
                    row.name());
        }));
    }

    int revokeAll(long account, String by) {
        return mapper.revokeAll(account, by, changes.now());
    }
}

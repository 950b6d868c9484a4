package dev.paseo.service.access;

import dev.paseo.core.access.Person;
import dev.paseo.core.text.Length;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Signing in with a password, sessions, and new passwords. */
@Component
public class SigningIn {

    public static final Duration SESSION = Duration.ofHours(12);
    /** How long a one-time code is good. */
    static final Duration CODE = Duration.ofHours(24);
    private static final String NOBODY = "nobody";

    private final AccountMapper mapper;
    private final Accounts accounts;
    private final Passwords passwords;
    private final FailedTries tries;
    private final Changes changes;

    SigningIn(AccountMapper mapper, Accounts accounts, Passwords passwords, FailedTries tries, Changes changes) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.passwords = passwords;
        this.tries = tries;
        this.changes = changes;
    }

    /** A new session's token. */
    public String signIn(String name, String password, String address) {
        return session(check(name, password, address), "console");
    }

    /** A new session for whoever has proved who they are. */
    public String session(AccountRow account, String by) {
        String token = Tokens.fresh("paseo-session");
        Instant now = changes.now();
        changes.run(() -> {
            mapper.addSession(Sha256.hex(token), account.id(), now, now.plus(SESSION));
            mapper.signedIn(account.id(), now);
            changes.record(AuditTrail.Entry.of(account.name(), "signed in", account.name()).with("by", by));
        });
        return token;
    }

    /**
     * The account of this name, where the password is its own. Whether there is one is not told, nor seen by the time
     * it takes.
     *
     * @param address where it was asked from
     */
    AccountRow check(String name, String password, String address) {
        limited(name, address, " to sign in as " + name + ", or");
        Optional<AccountRow> account = mapper.named(name).filter(row -> row.disabledAt() == null);
        boolean good = passwords.matches(password, account.map(AccountRow::passwordHash).orElse(""));
        if (!good || account.isEmpty()) {
            tries.failed(name, address, changes.outside());
            changes.run(
                    () -> changes.record(AuditTrail.Entry.of(NOBODY, "failed to sign in", name).with("from", address)));
            throw Refusal.signedOut("The name or the password is wrong");
        }
        tries.succeeded(name);
        changes.run(() -> mapper.signedIn(account.get().id(), changes.now()));
        return account.get();
    }

    /** @throws Refusal where this name or this address has failed too often of late */
    private void limited(String name, String address, String what) {
        Duration left = tries.left(name, address, changes.outside());
        if (left.isPositive()) {
            throw Refusal.tooMany("Too many failed tries" + what + " from this address; try again in "
                    + Length.of(left.plusSeconds(1)), left.plusSeconds(1));
        }
    }

    /** The account that a code was given for; an unknown code counts as a try. */
    AccountRow ofCode(String code, String address) {
        limited(NOBODY, address, "");
        return mapper.ofCode(Sha256.hex(code), changes.now()).orElseThrow(() -> {
            tries.failed(NOBODY, address, changes.outside());
            return Refusal.signedOut("This code is unknown, used, or older than " + CODE.toHours()
                    + " h; ask an administrator for a new one");
        });
    }

    /** Who has signed in, or could, is not kept waiting for earlier tries. */
    void succeeded(String name) {
        tries.succeeded(name);
    }

    public void signOut(String token) {
        mapper.endSession(Sha256.hex(token));
    }

    public Optional<Person> bySession(String token) {
        return mapper.ofSession(Sha256.hex(token), changes.now())
                .map(row -> accounts.person(row.id(), row.name()));
    }

    @Scheduled(fixedDelay = 3_600_000)
    void forget() {
        mapper.forgetSessions(changes.now());
    }
}

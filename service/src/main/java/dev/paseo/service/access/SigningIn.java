package dev.paseo.service.access;

import dev.paseo.core.text.Length;
import dev.paseo.core.access.Person;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
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
    private static final Duration CODE = Duration.ofHours(24);
    private static final String NOBODY = "nobody";

    private final AccountMapper mapper;
    private final Accounts accounts;
    private final Passwords passwords;
    private final FailedTries tries;
    private final Around around;

    /** How it is written down. */
    @Component("signingInAround")
    record Around(Transactions transactions, ServiceClock clock, AuditTrail audit, AccountStates states) {}

    SigningIn(AccountMapper mapper, Accounts accounts, Passwords passwords, FailedTries tries, Around around) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.passwords = passwords;
        this.tries = tries;
        this.around = around;
    }

    /** A new session's token. */
    public String signIn(String name, String password, String address) {
        return session(check(name, password, address), "console");
    }

    /** A new session for whoever has proved who they are. */
    public String session(AccountRow account, String by) {
        String token = Tokens.fresh("paseo-session");
        Instant now = around.clock().now();
        around.transactions().run(() -> {
            mapper.addSession(Tokens.hash(token), account.id(), now, now.plus(SESSION));
            mapper.signedIn(account.id(), now);
            around.audit().record(AuditTrail.Entry.of(account.name(), "signed in", account.name()).with("by", by));
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
        Instant now = around.clock().outside();
        Duration left = tries.left(name, address, now);
        if (left.isPositive()) {
            throw Refusal.tooMany("Too many failed tries to sign in as " + name
                    + ", or from this address; try again in " + Length.of(left.plusSeconds(1)), left.plusSeconds(1));
        }
        Optional<AccountRow> account = mapper.named(name).filter(row -> row.disabledAt() == null);
        boolean good = passwords.matches(password, account.map(AccountRow::passwordHash).orElse(""));
        if (!good || account.isEmpty()) {
            tries.failed(name, address, now);
            around.transactions().run(() -> around.audit()
                    .record(AuditTrail.Entry.of(NOBODY, "failed to sign in", name).with("from", address)));
            throw Refusal.signedOut("The name or the password is wrong");
        }
        tries.succeeded(name);
        around.transactions().run(() -> mapper.signedIn(account.get().id(), around.clock().now()));
        return account.get();
    }

    /** A password as it is kept. */
    String kept(String password) {
        return passwords.hash(password);
    }

    public void signOut(String token) {
        mapper.endSession(Tokens.hash(token));
    }

    public Optional<Person> bySession(String token) {
        return mapper.ofSession(Tokens.hash(token), around.clock().now())
                .map(row -> accounts.person(row.id(), row.name()));
    }

    /**
     * A one-time code, good for a day, with which somebody sets a password; an older one is worth nothing from now on.
     */
    String code(AccountRow account, String by) {
        String code = Tokens.fresh("paseo-code");
        Instant now = around.clock().now();
        mapper.dropCodes(account.id());
        mapper.addCode(Tokens.hash(code), account.id(), by, now, now.plus(CODE));
        around.audit().record(AuditTrail.Entry.of(by, "code for a password given", account.name()).with("good for",
                CODE.toHours() + " h"));
        return code;
    }

    /** Sets a password by the code that was given for it; it counts once. */
    public String byCode(String code, String fresh, String address) {
        Instant now = around.clock().outside();
        Duration left = tries.left(NOBODY, address, now);
        if (left.isPositive()) {
            throw Refusal.tooMany(
                    "Too many failed tries from this address; try again in " + Length.of(left.plusSeconds(1)),
                    left.plusSeconds(1));
        }
        AccountRow account = mapper.ofCode(Tokens.hash(code), around.clock().now()).orElseThrow(() -> {
            tries.failed(NOBODY, address, now);
            return Refusal.signedOut("This code is unknown, used, or older than " + CODE.toHours()
                    + " h; ask an administrator for a new one");
        });
        String hash = passwords.hash(fresh);
        around.transactions().run(() -> {
            if (mapper.dropCodes(account.id()) == 0) {
                throw Refusal.signedOut("This code has just been used; ask an administrator for a new one");
            }
            set(account, hash, "a code");
        });
        tries.succeeded(account.name());
        return account.name();
    }

    /** Changes a password by the one before. */
    public void change(String name, String current, String fresh, String address) {
        AccountRow account;
        try {
            account = check(name, current, address);
        } catch (Refusal refused) {
            throw refused.kind() == Refusal.Kind.SIGNED_OUT
                    ? Refusal.invalid("/current", "The current password is wrong")
                    : refused;
        }
        String hash = passwords.hash(fresh);
        around.transactions().run(() -> set(account, hash, "the one before"));
    }

    /** Sessions end; tokens stay as they are. */
    private void set(AccountRow account, String hash, String by) {
        accounts.hold(account.name());
        mapper.setPassword(account.id(), hash);
        mapper.endSessions(account.id());
        around.audit().record(AuditTrail.Entry.of(account.name(), "password changed", account.name()).with("by", by)
                .stating(AccountStates.subject(account.name()), around.states().text(account.name())));
    }

    @Scheduled(fixedDelay = 3_600_000)
    void forget() {
        mapper.forgetSessions(around.clock().now());
    }
}

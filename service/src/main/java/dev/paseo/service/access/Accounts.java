package dev.paseo.service.access;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.stereotype.Component;

/** Accounts: adding them, signing in, and who somebody is at this moment. */
@Component
public class Accounts {

    private static final Duration SESSION = Duration.ofHours(12);
    private static final Duration TOKEN = Duration.ofDays(90);
    private static final int SHORTEST_PASSWORD = 10;
    /** As long as signing in takes it. */
    static final int LONGEST_PASSWORD = 200;

    private final AccountMapper mapper;
    private final Transactions transactions;
    private final ServiceClock clock;
    private final AuditTrail audit;
    private final Argon2PasswordEncoder passwords = Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8();
    private final String nobodysHash = passwords.encode(Tokens.fresh("nobody"));

    Accounts(AccountMapper mapper, Transactions transactions, ServiceClock clock, AuditTrail audit) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.audit = audit;
    }

    /** A new account; {@code addresses} are taken as verified by whoever adds it. */
    public record NewAccount(String name, String password, List<String> addresses, List<String> groups, List<String> roles) {}

    public void add(NewAccount account, String by) {
        if (!account.name().matches("[a-z0-9][a-z0-9.-]{0,62}")) {
            throw Refusal.invalid("/name", "an account's name has small letters, digits, dots and dashes, at most 63; got '" + account.name() + "'");
        }
        if (account.password().length() < SHORTEST_PASSWORD || account.password().length() > LONGEST_PASSWORD) {
            throw Refusal.invalid("/password", "a password has " + SHORTEST_PASSWORD + " to " + LONGEST_PASSWORD + " characters");
        }
        List<Role> roles = account.roles().stream().map(Accounts::role).toList();
        String hash = passwords.encode(account.password());
        transactions.run(() -> {
            if (mapper.named(account.name()).isPresent()) {
                throw Refusal.conflict("there is an account named " + account.name() + " already");
            }
            mapper.add(account.name(), hash, clock.now());
            long id = mapper.named(account.name()).orElseThrow().id();
            account.addresses().forEach(address -> mapper.addAddress(address.toLowerCase(java.util.Locale.ROOT), id, clock.now()));
            account.groups().forEach(group -> {
                mapper.addGroup(group);
                mapper.join(group, id);
            });
            roles.forEach(role -> mapper.grant(id, role.name()));
            audit.record(AuditTrail.Entry.of(by, "account added", account.name())
                    .with("roles", String.join(", ", account.roles())).with("groups", String.join(", ", account.groups())));
        });
    }

    private static Role role(String word) {
        return Role.named(word).orElseThrow(() -> Refusal.invalid("/roles", "there is no role " + word
                + NearestName.hint(word, Arrays.stream(Role.values()).map(Role::word).toList())));
    }

    public void leave(String group, String name, String by) {
        transactions.run(() -> {
            AccountRow account = mapper.named(name).orElseThrow(() -> unknown(name));
            if (mapper.leave(group, account.id()) == 0) {
                throw Refusal.notFound(name + " is not in the group " + group);
            }
            groupsChanged();
            audit.record(AuditTrail.Entry.of(by, "group left", name).with("group", group));
        });
    }

    public void join(String group, String name, String by) {
        transactions.run(() -> {
            AccountRow account = mapper.named(name).orElseThrow(() -> unknown(name));
            mapper.addGroup(group);
            mapper.join(group, account.id());
            groupsChanged();
            audit.record(AuditTrail.Entry.of(by, "group joined", name).with("group", group));
        });
    }

    private void groupsChanged() {
        mapper.wakePlaces(clock.now());
        mapper.wakePassages(clock.now());
    }

    /** Somebody by name, with what they may. */
    public Person named(String name) {
        return mapper.named(name).map(row -> person(row.id(), row.name())).orElseThrow(() -> unknown(name));
    }

    public long idOf(String name) {
        return mapper.named(name).orElseThrow(() -> unknown(name)).id();
    }

    private Refusal unknown(String name) {
        return Refusal.notFound("there is no account " + name + NearestName.hint(name, mapper.names()));
    }

    boolean none() {
        return mapper.count() == 0;
    }

    /** A new session's token. */
    String signIn(String name, String password) {
        AccountRow account = check(name, password);
        String token = Tokens.fresh("paseo-session");
        Instant now = clock.now();
        transactions.run(() -> {
            mapper.addSession(Tokens.hash(token), account.id(), now, now.plus(SESSION));
            audit.record(AuditTrail.Entry.of(name, "signed in", name).with("by", "console"));
        });
        return token;
    }

    /** A new personal token. */
    String tokenFor(String name, String password, String label) {
        AccountRow account = check(name, password);
        String token = Tokens.fresh("paseo-token");
        Instant now = clock.now();
        transactions.run(() -> {
            mapper.addToken(Tokens.hash(token), account.id(), label, now, now.plus(TOKEN));
            audit.record(AuditTrail.Entry.of(name, "token made", name).with("label", label));
        });
        return token;
    }

    /** It takes the same time whether or not the account exists. */
    private AccountRow check(String name, String password) {
        Optional<AccountRow> account = mapper.named(name).filter(row -> row.disabledAt() == null);
        boolean good = passwords.matches(password, account.map(AccountRow::passwordHash).orElse(nobodysHash));
        if (!good || account.isEmpty()) {
            throw Refusal.signedOut("The name or the password is not right.");
        }
        return account.get();
    }

    void signOut(String token) {
        mapper.endSession(Tokens.hash(token));
    }

    void revoke(String token) {
        mapper.revoke(Tokens.hash(token), clock.now());
    }

    Optional<Person> bySession(String token) {
        return mapper.ofSession(Tokens.hash(token), clock.now()).map(this::person);
    }

    /** A limited token gives what it is for, as long as its owner may do that. */
    Optional<Person> byToken(String token) {
        return mapper.ofToken(Tokens.hash(token), clock.now()).map(row -> {
            Person owner = person(row.id(), row.name());
            if (row.action() == null) {
                return owner;
            }
            Optional<String> component = Optional.ofNullable(row.component());
            boolean may = owner.may(Action.valueOf(row.action()), component, Optional.empty());
            Optional<String> limit = Optional.of(Action.valueOf(row.action()).words() + component.map(name -> " of " + name).orElse(""));
            return new Person(row.id(), row.name(), Set.of(), may ? List.of(new Grant(Role.PUBLISHER, component, Optional.empty())) : List.of(), limit);
        });
    }

    /** A token of this person that can publish versions of one component and nothing else. */
    public String tokenToPublish(Person person, String component, String label) {
        String token = Tokens.fresh("paseo-publish");
        Instant now = clock.now();
        transactions.run(() -> {
            mapper.addLimitedToken(Tokens.hash(token), person.id(), label, Action.PUBLISH.name(), component, now, now.plus(TOKEN));
            audit.record(AuditTrail.Entry.of(person.name(), "token made", person.name()).with("label", label).with("publishes", component));
        });
        return token;
    }

    private Person person(AccountRow account) {
        return person(account.id(), account.name());
    }

    private Person person(long id, String name) {
        List<Grant> grants = mapper.grants(id).stream().map(row -> new Grant(Role.valueOf(row.role()),
                Optional.ofNullable(row.component()), Optional.ofNullable(row.environment()))).toList();
        return new Person(id, name, new HashSet<>(mapper.groupsOf(id)), grants);
    }

    /** Who is in a group now. */
    public Set<String> members(String group) {
        return Set.copyOf(mapper.members(group));
    }

    /** The members of a group; where there is no such group, the person of that name. */
    public Set<String> meant(String name) {
        Set<String> members = members(name);
        return members.isEmpty() && !mapper.groups().contains(name) && mapper.names().contains(name) ? Set.of(name) : members;
    }

    /** Everybody who may sign in, with what they may. */
    public List<Person> people() {
        return mapper.names().stream().flatMap(name -> mapper.named(name).stream()).map(row -> person(row.id(), row.name())).toList();
    }

    /** Everybody who may sign in. */
    public List<String> names() {
        return mapper.names();
    }

    public List<String> groups() {
        return mapper.groups();
    }

    /** The first verified address of an account. */
    public Optional<String> addressOf(long account) {
        return mapper.addressOf(account);
    }

    /** The account that a verified address, or a plain account name, stands for. */
    public Optional<String> accountOf(String address) {
        return mapper.nameOfAddress(address.toLowerCase(java.util.Locale.ROOT)).or(() -> mapper.named(address).map(AccountRow::name));
    }

    @Scheduled(fixedDelay = 3_600_000)
    void forget() {
        mapper.forgetSessions(clock.now());
    }
}

package dev.paseo.service.access;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Role;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.access.AccountMapper.StandingRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Accounts and groups as administrators see and change them. Somebody who may administrate is always left. */
@Component
public class AccountChanges {

    private static final int LONGEST_ADDRESS = 254;

    private final AccountMapper mapper;
    private final Accounts accounts;
    private final SigningIn signingIn;
    private final PersonalTokens tokens;
    private final Around around;

    /** How it is written down, and what a password is kept as. */
    @Component("accountChangesAround")
    record Around(Changes changes, Passwords passwords, AccountStates states, AccountStates.OfGroups groups) {}

    AccountChanges(AccountMapper mapper, Accounts accounts, SigningIn signingIn, PersonalTokens tokens, Around around) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.signingIn = signingIn;
        this.tokens = tokens;
        this.around = around;
    }

    /**
     * A new account; {@code addresses} are taken as verified by whoever adds it.
     *
     * @param password empty: a one-time code is given instead, with which its owner sets one
     * @param roles    such as {@code approver} or {@code approver in production of daylight-api}
     */
    public record NewAccount(String name, Optional<String> password, List<String> addresses, List<String> groups,
            List<String> roles) {}

    /** Who disabled an account, when and why. */
    public record Disabled(String by, Instant at, String reason) {}

    /** An account as it is. {@code roles} are its own; {@code byGroups} those that its groups give. */
    public record AccountView(String name, List<String> roles, List<String> byGroups, List<String> groups,
            List<String> addresses, int tokens, Instant addedAt, Optional<Instant> signedInAt,
            boolean external, Optional<Disabled> disabled) {}

    /** A group: who is in it, of those who may sign in, and which roles it gives. */
    public record GroupView(String name, List<String> members, List<String> roles) {}

    private AuditTrail.Entry stating(AuditTrail.Entry entry, String name) {
        return entry.stating(AccountStates.subject(name), around.states().text(name));
    }

    private AccountRow held(String name) {
        mapper.lock(name);
        return accounts.row(name);
    }

    /** The code to set a password with, where none was given. */
    public Optional<String> add(NewAccount account, String by) {
        if (!account.name().matches("[a-z0-9][a-z0-9.-]{0,62}")) {
            throw Refusal.invalid("/name",
                    "An account's name has small letters, digits, dots and dashes, at most 63; got “" + account.name()
                            + "”");
        }
        List<Grant> roles = roles(account.roles());
        String hash = account.password().map(around.passwords()::hash).orElse("");
        return around.changes().in(() -> {
            if (mapper.named(account.name()).isPresent()) {
                throw Refusal.conflict("There is an account named " + account.name() + " already");
            }
            mapper.add(account.name(), hash, around.changes().now());
            AccountRow row = accounts.row(account.name());
            addresses(row, account.addresses());
            account.groups().forEach(group -> {
                mapper.addGroup(group);
                mapper.join(group, row.id());
            });
            roles.forEach(role -> grant(row.id(), null, role));
            around.changes()
                    .record(stating(AuditTrail.Entry.of(by, "account added", account.name())
                            .with("roles", String.join(", ", account.roles()))
                            .with("groups", String.join(", ", account.groups()))
                            .with("addresses", String.join(", ", account.addresses())), account.name()));
            around.changes().publish("account", account.name());
            return account.password().isPresent() ? Optional.empty() : Optional.of(signingIn.code(row, by));
        });
    }

    private static List<Grant> roles(List<String> words) {
        return words.stream().distinct().map(word -> Grant.of(word).orElseThrow(() -> {
            String role = word.replaceFirst(" .*", "");
            return Refusal.invalid("/roles", Role.named(role).isPresent()
                    ? "A role is ROLE, ROLE in ENVIRONMENT, ROLE of COMPONENT, or ROLE in ENVIRONMENT of COMPONENT; "
                            + "got “"
                            + word + "”"
                    : "There is no role " + role
                            + NearestName.hint(role, Arrays.stream(Role.values()).map(Role::word).toList()));
        })).toList();
    }

    private void grant(@Nullable Long account, @Nullable String group, Grant grant) {
        @Nullable
        String component = grant.component().orElse(null);
        @Nullable
        String environment = grant.environment().orElse(null);
        if (mapper.there(component, environment) != (component == null ? 0 : 1) + (environment == null ? 0 : 1)) {
            throw Refusal.invalid("/roles",
                    "“" + grant.words() + "” names a component or an environment that is not there");
        }
        mapper.grant(account, group, grant.role().name(), component, environment);
    }

    /** Each address stands for one account. */
    private void addresses(AccountRow account, List<String> wanted) {
        Set<String> addresses = new LinkedHashSet<>(
                wanted.stream().map(address -> address.strip().toLowerCase(Locale.ROOT)).toList());
        for (String address : addresses) {
            if (!address.matches("[^\\s@<>\"]{1,100}@[^\\s@<>\"]{1,150}") || address.length() > LONGEST_ADDRESS) {
                throw Refusal.invalid("/addresses", "“" + address + "” is not a mail address");
            }
            mapper.nameOfAddress(address).filter(owner -> !owner.equals(account.name())).ifPresent(owner -> {
                throw Refusal.conflict(address + " belongs to " + owner + "; remove it there first");
            });
        }
        List<String> before = mapper.addresses(account.id());
        before.stream().filter(address -> !addresses.contains(address))
                .forEach(address -> mapper.dropAddress(account.id(), address));
        addresses.stream().filter(address -> !before.contains(address))
                .forEach(address -> mapper.addAddress(address, account.id(), around.changes().now()));
    }

    /** What is to be otherwise; what is empty stays as it is. */
    public record AccountChange(Optional<List<String>> roles, Optional<List<String>> groups,
            Optional<List<String>> addresses) {}

    AccountView change(String name, AccountChange change, String by) {
        return around.changes().in(() -> {
            administration();
            AccountRow account = held(name);
            AccountView before = view(account);
            change.roles().ifPresent(words -> {
                List<Grant> roles = roles(words);
                mapper.dropGrants(account.id());
                roles.forEach(role -> grant(account.id(), null, role));
            });
            change.groups().ifPresent(groups -> {
                before.groups().stream().filter(group -> !groups.contains(group))
                        .forEach(group -> mapper.leave(group, account.id()));
                groups.forEach(group -> {
                    mapper.addGroup(group);
                    mapper.join(group, account.id());
                });
            });
            change.addresses().ifPresent(addresses -> addresses(account, addresses));
            someoneAdministrates();
            AccountView after = view(account);
            AuditTrail.Entry entry = AuditTrail.Entry.of(by, "account changed", name);
            for (Told told : List.of(new Told("role", before.roles(), after.roles()),
                    new Told("group", before.groups(), after.groups()),
                    new Told("address", before.addresses(), after.addresses()))) {
                entry = told.into(entry);
            }
            if (!entry.details().isEmpty()) {
                around.changes().record(stating(entry, name));
                changed(name);
            }
            return after;
        });
    }

    /** What was given and what was taken of one kind. */
    private record Told(String kind, List<String> before, List<String> after) {
        AuditTrail.Entry into(AuditTrail.Entry entry) {
            List<String> given = new ArrayList<>(after);
            given.removeAll(before);
            List<String> taken = new ArrayList<>(before);
            taken.removeAll(after);
            AuditTrail.Entry more = given.isEmpty() ? entry : entry.with(kind + " given", String.join(", ", given));
            return taken.isEmpty() ? more : more.with(kind + " taken", String.join(", ", taken));
        }
    }

    /** Gates ask others from now on, and pages show others. */
    private void changed(String subject) {
        accounts.judgeAgain(around.changes().now());
        around.changes().publish("account", subject);
    }

    /** Held by whoever may take it from somebody, before anything else. */
    private void administration() {
        mapper.lockRole(Role.ADMINISTRATOR.name());
    }

    private void someoneAdministrates() {
        if (mapper.withRole(Role.ADMINISTRATOR.name()) == 0) {
            throw Refusal.conflict("This would leave no administrator: give the role to somebody else first");
        }
    }

    /**
     * What they approved stays, with their name; they are signed out everywhere at once, and their tokens are worth
     * nothing any more.
     */
    AccountView disable(String name, String reason, String by) {
        if (reason.isBlank()) {
            throw Refusal.invalid("/reason", "Say why the account is disabled");
        }
        if (name.equals(by)) {
            throw Refusal.conflict("You cannot disable your own account: ask another administrator");
        }
        return around.changes().in(() -> {
            administration();
            AccountRow account = held(name);
            if (account.disabledAt() != null) {
                throw Refusal.conflict(name + " is disabled already");
            }
            mapper.setDisabled(account.id(), around.changes().now(), by, reason);
            someoneAdministrates();
            int sessions = mapper.endSessions(account.id());
            mapper.dropCodes(account.id());
            int revoked = tokens.revokeAll(account.id(), by);
            around.changes()
                    .record(stating(AuditTrail.Entry.of(by, "account disabled", name).because(reason)
                            .with("sessions ended", Integer.toString(sessions))
                            .with("tokens revoked", Integer.toString(revoked)), name));
            changed(name);
            return view(account);
        });
    }

    AccountView enable(String name, String by) {
        return around.changes().in(() -> {
            AccountRow account = held(name);
            if (account.disabledAt() == null) {
                throw Refusal.conflict(name + " is not disabled");
            }
            mapper.setDisabled(account.id(), null, null, null);
            around.changes().record(stating(AuditTrail.Entry.of(by, "account enabled", name), name));
            changed(name);
            return view(account);
        });
    }

    /** A one-time code with which its owner sets a new password. */
    String reset(String name, String by) {
        return around.changes().in(() -> {
            AccountRow account = accounts.row(name);
            if (account.disabledAt() != null) {
                throw Refusal.conflict(name + " is disabled; enable it first");
            }
            return signingIn.code(account, by);
        });
    }

    List<AccountView> all() {
        return mapper.allNames().stream().map(accounts::row).map(this::view).toList();
    }

    AccountView one(String name) {
        return view(accounts.row(name));
    }

    private AccountView view(AccountRow account) {
        StandingRow standing = mapper.standing(account.id());
        List<String> groups = mapper.groupsOf(account.id()).stream().sorted().toList();
        Optional<Disabled> disabled = Optional.ofNullable(standing.disabledAt())
                .map(at -> new Disabled(Optional.ofNullable(standing.disabledBy()).orElse(""), at,
                        Optional.ofNullable(standing.disabledReason()).orElse("")));
        return new AccountView(account.name(), words(mapper.ownGrants(account.id())),
                groups.stream()
                        .flatMap(group -> words(mapper.groupGrants(group)).stream().map(role -> role + " by " + group))
                        .toList(),
                groups, mapper.addresses(account.id()), tokens.of(account.id()).size(), standing.createdAt(),
                Optional.ofNullable(standing.signedInAt()), standing.externalSubject() != null, disabled);
    }

    private static List<String> words(List<AccountMapper.GrantRow> rows) {
        return Accounts.grants(rows).stream().map(Grant::words).toList();
    }

    List<GroupView> groups() {
        return mapper.groups().stream().map(this::group).toList();
    }

    private GroupView group(String name) {
        return new GroupView(name, mapper.members(name).stream().sorted().toList(), words(mapper.groupGrants(name)));
    }

    /** The roles that a group gives to whoever is in it. */
    GroupView groupRoles(String name, List<String> words, String by) {
        List<Grant> roles = roles(words);
        return around.changes().in(() -> {
            administration();
            mapper.addGroup(name);
            mapper.lockGroup(name);
            Told told = new Told("role", words(mapper.groupGrants(name)), roles.stream().map(Grant::words).toList());
            mapper.dropGroupGrants(name);
            roles.forEach(role -> grant(null, name, role));
            someoneAdministrates();
            AuditTrail.Entry entry = told.into(AuditTrail.Entry.of(by, "group changed", name));
            if (!entry.details().isEmpty()) {
                around.changes().record(roles.isEmpty() ? entry.gone(AccountStates.OfGroups.subject(name))
                        : entry.stating(AccountStates.OfGroups.subject(name), around.groups().text(name)));
                changed(name);
            }
            return group(name);
        });
    }

    void leave(String group, String name, String by) {
        around.changes().run(() -> {
            administration();
            if (mapper.leave(group, held(name).id()) == 0) {
                throw Refusal.notFound(name + " is not in the group " + group);
            }
            someoneAdministrates();
            changed(name);
            around.changes().record(stating(AuditTrail.Entry.of(by, "group left", name).with("group", group), name));
        });
    }

    void join(String group, String name, String by) {
        around.changes().run(() -> {
            AccountRow account = held(name);
            mapper.addGroup(group);
            mapper.join(group, account.id());
            changed(name);
            around.changes().record(stating(AuditTrail.Entry.of(by, "group joined", name).with("group", group), name));
        });
    }
}

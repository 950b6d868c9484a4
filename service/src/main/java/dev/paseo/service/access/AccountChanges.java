package dev.paseo.service.access;

import dev.paseo.core.access.Grant;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.access.AccountViews.AccountView;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Accounts as administrators change them. Somebody who may administrate is always left. */
@Component
public class AccountChanges {

    private static final int LONGEST_ADDRESS = 254;

    private final AccountMapper mapper;
    private final Administration administration;
    private final SettingPasswords passwords;
    private final PersonalTokens tokens;
    private final AccountViews views;

    AccountChanges(AccountMapper mapper, Administration administration, SettingPasswords passwords,
            PersonalTokens tokens,
            AccountViews views) {
        this.mapper = mapper;
        this.administration = administration;
        this.passwords = passwords;
        this.tokens = tokens;
        this.views = views;
    }

    /**
     * A new account; {@code addresses} are taken as verified by whoever adds it.
     *
     * @param password empty: a one-time code is given instead, with which its owner sets one
     * @param roles    such as {@code approver} or {@code approver in production of daylight-api}
     */
    public record NewAccount(String name, Optional<String> password, List<String> addresses, List<String> groups,
            List<String> roles) {}

    /** The code to set a password with, where none was given. */
    public Optional<String> add(NewAccount account, String by) {
        if (!account.name().matches("[a-z0-9][a-z0-9.-]{0,62}")) {
            throw Refusal.invalid("/name",
                    "An account's name has small letters, digits, dots and dashes, at most 63; got “" + account.name()
                            + "”");
        }
        List<Grant> roles = Administration.roles(account.roles());
        String hash = account.password().map(passwords::kept).orElse("");
        return administration.in(() -> {
            if (mapper.named(account.name()).isPresent()) {
                throw Refusal.conflict("There is an account named " + account.name() + " already");
            }
            mapper.add(account.name(), hash, administration.now());
            AccountRow row = administration.held(account.name());
            addresses(row, account.addresses());
            account.groups().forEach(group -> {
                mapper.addGroup(group);
                mapper.join(group, row.id());
            });
            roles.forEach(role -> administration.give(row.id(), null, role));
            administration.record(AuditTrail.Entry.of(by, "account added", account.name())
                    .with("roles", String.join(", ", account.roles()))
                    .with("groups", String.join(", ", account.groups()))
                    .with("addresses", String.join(", ", account.addresses())), account.name());
            administration.publish(account.name());
            return account.password().isPresent() ? Optional.empty() : Optional.of(passwords.code(row, by));
        });
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
                .forEach(address -> mapper.addAddress(address, account.id(), administration.now()));
    }

    /** What is to be otherwise; what is empty stays as it is. */
    public record AccountChange(Optional<List<String>> roles, Optional<List<String>> groups,
            Optional<List<String>> addresses) {}

    AccountView change(String name, AccountChange change, String by) {
        return administration.in(() -> {
            administration.hold();
            AccountRow account = administration.held(name);
            AccountView before = views.one(name);
            change.roles().ifPresent(words -> {
                List<Grant> roles = Administration.roles(words);
                mapper.dropGrants(account.id());
                roles.forEach(role -> administration.give(account.id(), null, role));
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
            administration.someoneIsLeft();
            AccountView after = views.one(name);
            AuditTrail.Entry entry = AuditTrail.Entry.of(by, "account changed", name);
            for (Administration.Told told : List.of(new Administration.Told("role", before.roles(), after.roles()),
                    new Administration.Told("group", before.groups(), after.groups()),
                    new Administration.Told("address", before.addresses(), after.addresses()))) {
                entry = told.into(entry);
            }
            if (!entry.details().isEmpty()) {
                administration.record(entry, name);
                administration.changed(name);
            }
            return after;
        });
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
        return administration.in(() -> {
            administration.hold();
            AccountRow account = administration.held(name);
            if (account.disabledAt() != null) {
                throw Refusal.conflict(name + " is disabled already");
            }
            mapper.setDisabled(account.id(), administration.now(), by, reason);
            administration.someoneIsLeft();
            int sessions = mapper.endSessions(account.id());
            mapper.dropCodes(account.id());
            int revoked = tokens.revokeAll(account.id(), by);
            administration.record(AuditTrail.Entry.of(by, "account disabled", name).because(reason)
                    .with("sessions ended", Integer.toString(sessions))
                    .with("tokens revoked", Integer.toString(revoked)), name);
            administration.changed(name);
            return views.one(name);
        });
    }

    AccountView enable(String name, String by) {
        return administration.in(() -> {
            AccountRow account = administration.held(name);
            if (account.disabledAt() == null) {
                throw Refusal.conflict(name + " is not disabled");
            }
            mapper.setDisabled(account.id(), null, null, null);
            administration.record(AuditTrail.Entry.of(by, "account enabled", name), name);
            administration.changed(name);
            return views.one(name);
        });
    }

    /** A one-time code with which its owner sets a new password. */
    String reset(String name, String by) {
        return administration.in(() -> {
            AccountRow account = administration.held(name);
            if (account.disabledAt() != null) {
                throw Refusal.conflict(name + " is disabled; enable it first");
            }
            return passwords.code(account, by);
        });
    }
}

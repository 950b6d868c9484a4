package dev.paseo.service.access;

import dev.paseo.service.change.Changes;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.ProviderSettings;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/**
 * Whose account it is that a provider vouches for: the one that is tied to it, the one of the same verified address, or
 * a new one.
 */
@Component
public class ProviderAccounts {

    private static final int MOST_GROUPS = 200;

    private final AccountMapper mapper;
    private final ProviderSettings settings;
    private final Changes changes;
    private final AccountStates states;

    ProviderAccounts(AccountMapper mapper, ProviderSettings settings, Changes changes, AccountStates states) {
        this.mapper = mapper;
        this.settings = settings;
        this.changes = changes;
        this.states = states;
    }

    /**
     * What the provider says of somebody.
     *
     * @param subject who it is, for good: the issuer and its own number
     * @param address the mail address, where the provider has verified it
     * @param groups  those of the claim
     */
    public record Vouched(String subject, Optional<String> name, Optional<String> address, List<String> groups) {}

    public AccountRow of(Vouched vouched) {
        return changes.in(() -> {
            AccountRow account = mapper.ofSubject(vouched.subject()).or(() -> tied(vouched))
                    .orElseGet(() -> fresh(vouched));
            if (account.disabledAt() != null) {
                throw Refusal.notAllowed(account.name() + " is disabled");
            }
            groups(account, vouched.groups());
            return account;
        });
    }

    private void record(AuditTrail.Entry entry, String name) {
        changes.record(entry.stating(AccountStates.subject(name), states.text(name)));
    }

    private Optional<AccountRow> tied(Vouched vouched) {
        Optional<AccountRow> account = vouched.address()
                .flatMap(address -> mapper.nameOfAddress(address.toLowerCase(Locale.ROOT))).flatMap(mapper::named);
        account.ifPresent(row -> {
            if (mapper.standing(row.id()).externalSubject() != null) {
                throw Refusal.notAllowed(row.name() + " already signs in with another account of the provider");
            }
            mapper.lock(row.name());
            mapper.tie(row.id(), vouched.subject());
            record(AuditTrail.Entry.of(row.name(), "account tied to the provider", row.name())
                    .with("subject", vouched.subject()).with("by the address", vouched.address().orElse("")),
                    row.name());
        });
        return account;
    }

    private AccountRow fresh(Vouched vouched) {
        String name = vouched.name().map(text -> text.toLowerCase(Locale.ROOT)).orElse("");
        if (!settings.newAccounts() || !name.matches("[a-z0-9][a-z0-9.-]{0,62}") || mapper.named(name).isPresent()) {
            throw Refusal.notFound("There is no account for this person; an administrator has to make one first");
        }
        mapper.addExternal(name, vouched.subject(), changes.now());
        AccountRow account = mapper.named(name).orElseThrow();
        vouched.address().ifPresent(
                address -> mapper.addAddress(address.toLowerCase(Locale.ROOT), account.id(), changes.now()));
        record(AuditTrail.Entry.of(name, "account added", name)
                .because("signed in with the provider for the first time").with("subject", vouched.subject())
                .with("addresses", vouched.address().orElse("")), name);
        changes.publish("account", name);
        return account;
    }

    /** The groups that the provider gives and takes; those that an administrator gave stay. */
    private void groups(AccountRow account, List<String> claimed) {
        mapper.lock(account.name());
        TreeSet<String> wanted = new TreeSet<>(claimed.stream()
                .filter(group -> group.matches("[A-Za-z0-9][A-Za-z0-9._-]{0,62}")).limit(MOST_GROUPS).toList());
        List<String> before = mapper.groupsByProvider(account.id());
        List<String> all = mapper.groupsOf(account.id());
        List<String> left = before.stream().filter(group -> !wanted.contains(group)).toList();
        List<String> joined = wanted.stream().filter(group -> !all.contains(group)).toList();
        left.forEach(group -> mapper.leave(group, account.id()));
        joined.forEach(group -> {
            mapper.addGroup(group);
            mapper.joinByProvider(group, account.id());
        });
        if (!left.isEmpty() || !joined.isEmpty()) {
            mapper.wakePlaces(changes.now());
            mapper.wakePassages(changes.now());
            record(AuditTrail.Entry.of("provider", "groups of the provider", account.name())
                    .with("joined", String.join(", ", joined)).with("left", String.join(", ", left)), account.name());
            changes.publish("account", account.name());
        }
    }
}

package dev.paseo.service.access;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Role;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * How accounts and groups are changed: held while it is done, stated in the trail, told to the gates and pages that
 * depend on them, and never so that nobody is left who may administrate.
 */
@Component
class Administration {

    private final AccountMapper mapper;
    private final Accounts accounts;
    private final Changes changes;
    private final AccountStates states;
    private final AccountStates.OfGroups groups;

    Administration(AccountMapper mapper, Accounts accounts, Changes changes, AccountStates states,
            AccountStates.OfGroups groups) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.changes = changes;
        this.states = states;
        this.groups = groups;
    }

    <T> T in(Supplier<T> change) {
        return changes.in(change);
    }

    void run(Runnable change) {
        changes.run(change);
    }

    Instant now() {
        return changes.now();
    }

    /** An account that is about to be changed. */
    AccountRow held(String name) {
        mapper.lock(name);
        return accounts.row(name);
    }

    /** Held by whoever may take it from somebody, before anything else. */
    void hold() {
        mapper.lockRole(Role.ADMINISTRATOR.name());
    }

    /** @throws Refusal where the change under way leaves nobody who may administrate */
    void someoneIsLeft() {
        if (mapper.withRole(Role.ADMINISTRATOR.name()) == 0) {
            throw Refusal.conflict("This would leave no administrator: give the role to somebody else first");
        }
    }

    /** Writes an entry that leaves what the trail states of an account as it was. */
    void record(AuditTrail.Entry entry) {
        changes.record(entry);
    }

    /** Writes an entry about an account, with what the account is now. */
    void record(AuditTrail.Entry entry, String name) {
        changes.record(entry.stating(AccountStates.subject(name), states.text(name)));
    }

    /** Writes an entry about a group, with the roles that it gives now. */
    void recordGroup(AuditTrail.Entry entry, String name, boolean givesRoles) {
        String subject = AccountStates.OfGroups.subject(name);
        changes.record(givesRoles ? entry.stating(subject, groups.text(name)) : entry.gone(subject));
    }

    /** Gates ask others from now on, and pages show others. */
    void changed(String subject) {
        accounts.judgeAgain(changes.now());
        publish(subject);
    }

    /** Pages show others from now on. */
    void publish(String subject) {
        changes.publish("account", subject);
    }

    /** @throws Refusal for the first of them that is no role, with the role that may be meant */
    static List<Grant> roles(List<String> words) {
        return words.stream().distinct().map(word -> Grant.of(word).orElseThrow(() -> {
            String role = word.replaceFirst(" .*", "");
            return Refusal.invalid("/roles", Role.named(role).isPresent()
                    ? "A role is ROLE, ROLE in ENVIRONMENT, ROLE of COMPONENT, or ROLE in ENVIRONMENT of COMPONENT; "
                            + "got “" + word + "”"
                    : "There is no role " + role
                            + NearestName.hint(role, Arrays.stream(Role.values()).map(Role::word).toList()));
        })).toList();
    }

    /** Gives a role to an account or to a group. */
    void give(@Nullable Long account, @Nullable String group, Grant grant) {
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

    /** What was given and what was taken of one kind, as the trail says it. */
    record Told(String kind, List<String> before, List<String> after) {
        AuditTrail.Entry into(AuditTrail.Entry entry) {
            List<String> given = new ArrayList<>(after);
            given.removeAll(before);
            List<String> taken = new ArrayList<>(before);
            taken.removeAll(after);
            AuditTrail.Entry more = given.isEmpty() ? entry : entry.with(kind + " given", String.join(", ", given));
            return taken.isEmpty() ? more : more.with(kind + " taken", String.join(", ", taken));
        }
    }
}

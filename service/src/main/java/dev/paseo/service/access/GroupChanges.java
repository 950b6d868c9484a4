package dev.paseo.service.access;

import dev.paseo.core.access.Grant;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.access.AccountViews.GroupView;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import org.springframework.stereotype.Component;

/** Who is in which group, and which roles a group gives, as administrators change them. */
@Component
class GroupChanges {

    private final AccountMapper mapper;
    private final Administration administration;
    private final AccountViews views;

    GroupChanges(AccountMapper mapper, Administration administration, AccountViews views) {
        this.mapper = mapper;
        this.administration = administration;
        this.views = views;
    }

    /** The roles that a group gives to whoever is in it. */
    GroupView roles(String name, List<String> words, String by) {
        List<Grant> roles = Administration.roles(words);
        return administration.in(() -> {
            administration.hold();
            mapper.addGroup(name);
            mapper.lockGroup(name);
            Administration.Told told = new Administration.Told("role", view(name).roles(),
                    roles.stream().map(Grant::words).toList());
            mapper.dropGroupGrants(name);
            roles.forEach(role -> administration.give(null, name, role));
            administration.someoneIsLeft();
            AuditTrail.Entry entry = told.into(AuditTrail.Entry.of(by, "group changed", name));
            if (!entry.details().isEmpty()) {
                administration.recordGroup(entry, name, !roles.isEmpty());
                administration.changed(name);
            }
            return view(name);
        });
    }

    private GroupView view(String name) {
        return views.groups().stream().filter(group -> group.name().equals(name)).findFirst().orElseThrow();
    }

    /** @throws Refusal where the account is not in the group, or would be the last who may administrate */
    void leave(String group, String name, String by) {
        administration.run(() -> {
            administration.hold();
            if (mapper.leave(group, administration.held(name).id()) == 0) {
                throw Refusal.notFound(name + " is not in the group " + group);
            }
            administration.someoneIsLeft();
            administration.changed(name);
            administration.record(AuditTrail.Entry.of(by, "group left", name).with("group", group), name);
        });
    }

    void join(String group, String name, String by) {
        administration.run(() -> {
            AccountRow account = administration.held(name);
            mapper.addGroup(group);
            mapper.join(group, account.id());
            administration.changed(name);
            administration.record(AuditTrail.Entry.of(by, "group joined", name).with("group", group), name);
        });
    }
}

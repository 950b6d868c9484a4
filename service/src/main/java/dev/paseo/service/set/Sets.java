package dev.paseo.service.set;

import dev.paseo.core.access.Person;
import dev.paseo.language.file.Names;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import org.springframework.stereotype.Component;

/** Sets of versions: made once, never changed. */
@Component
class Sets {

    private static final int MOST = 50;

    private final SetMapper mapper;
    private final Versions versions;
    private final Changes changes;

    Sets(SetMapper mapper, Versions versions, Changes changes) {
        this.mapper = mapper;
        this.versions = versions;
        this.changes = changes;
    }

    /** Makes a set; it never changes. */
    void create(String name, List<Versions.Version> members, Person by) {
        if (!Names.NAME.matcher(name).matches()) {
            throw Refusal.invalid("/name", "A set's name has " + Names.NAME_WORDS);
        }
        if (members.size() < 2 || members.size() > MOST
                || members.stream().map(Versions.Version::component).distinct().count() != members.size()) {
            throw Refusal.invalid("/members", "A set has 2 to " + MOST + " versions, each of another component");
        }
        changes.run(() -> {
            if (mapper.named(name).isPresent()) {
                throw Refusal
                        .conflict("there is a set " + name + " already, and sets do not change: choose another name");
            }
            SetMapper.NewSet row = new SetMapper.NewSet(name, by.id(), changes.now());
            mapper.add(row);
            for (int at = 0; at < members.size(); at++) {
                mapper.addMember(row.id, members.get(at).id(), at);
            }
            changes.record(AuditTrail.Entry.of(by.name(), "set made", name).with("members",
                    String.join(", ", members.stream().map(each -> each.component() + " " + each.number()).toList())));
            changes.publish("set", name);
        });
    }

    SetMapper.SetRow named(String name) {
        return mapper.named(name).orElseThrow(() -> Refusal.notFound("There is no set " + name));
    }

    List<Versions.Version> members(long set) {
        return mapper.members(set).stream().map(versions::byId).toList();
    }

    /** The newest 200. */
    List<SetMapper.SetRow> all() {
        return mapper.all();
    }

    /** The newest first. */
    List<SetMapper.PromotionRow> promotions(long set) {
        return mapper.promotions(set);
    }

    List<SetMapper.MemberRow> deployments(long promotion) {
        return mapper.deployments(promotion);
    }
}

package dev.paseo.service.savedview;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import org.springframework.stereotype.Component;

/** A view is a page's address with what it asks for; what it shows is asked anew, as whoever looks may see it. */
@Component
class SavedViews {

    private static final int MOST = 100;

    private final SavedViewMapper mapper;
    private final ServiceClock clock;

    SavedViews(SavedViewMapper mapper, ServiceClock clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    List<SavedViewMapper.ViewRow> seenBy(Person person) {
        return mapper.seenBy(person.id());
    }

    void keep(Person person, String name, String address, boolean shared) {
        if (mapper.count(person.id()) >= MOST) {
            throw Refusal.conflict("You have " + MOST + " views, which is the most; drop one of them first");
        }
        mapper.keep(person.id(), name.strip(), address, shared, clock.now());
    }

    /** One's own, or one for everybody where one manages accounts. */
    void drop(Person person, long id) {
        SavedViewMapper.ViewRow row = mapper.byId(id)
                .filter(each -> each.shared() || each.account().equals(person.name()))
                .orElseThrow(() -> Refusal.notFound("You have no view " + id));
        if (!row.account().equals(person.name()) && !person.mayAnywhere(Action.MANAGE_ACCOUNTS)) {
            throw Refusal.notAllowed("Only " + row.account() + " and an administrator may drop this view");
        }
        mapper.drop(id);
    }
}

package dev.paseo.service.whereabouts;

import dev.paseo.service.component.Components;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Which components one answer is about: so many at a time, in the order of their names. */
@Component
class WhereaboutsPages {

    /** The most components of one answer. */
    private static final int MOST = 25;

    private final WhereaboutsMapper mapper;
    private final Components components;

    WhereaboutsPages(WhereaboutsMapper mapper, Components components) {
        this.mapper = mapper;
        this.components = components;
    }

    /** The components of one answer, from one name to another; {@code last} is empty where there are none. */
    record Page(String first, String last, Optional<String> next) {}

    /** @throws dev.paseo.service.problem.Refusal where there is no such component */
    Page of(String component, String after) {
        if (!component.isEmpty()) {
            components.named(component);
        }
        List<String> names = mapper.page(component, after, MOST + 1);
        return names.isEmpty() ? new Page("", "", Optional.empty())
                : new Page(names.getFirst(), names.get(Math.min(MOST, names.size()) - 1),
                        names.size() > MOST ? Optional.of(names.get(MOST - 1)) : Optional.empty());
    }

    /** The components of a page that is not empty. */
    List<Components.RegisteredComponent> components(Page page) {
        return components.between(page.first(), page.last());
    }
}

package dev.paseo.service.announcement;

import dev.paseo.service.component.ComponentChanges;
import dev.paseo.service.database.Json;
import java.util.List;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** The receivers that want to hear of a component by its name. */
@Component
class NamedByReceivers implements ComponentChanges.Naming {

    private static final TypeReference<List<String>> NAMES = new TypeReference<>() {};

    private final AnnouncementMapper mapper;
    private final Json json;

    NamedByReceivers(AnnouncementMapper mapper, Json json) {
        this.mapper = mapper;
        this.json = json;
    }

    @Override
    public List<String> naming(String component) {
        return mapper.active().stream().filter(row -> json.read(row.components(), NAMES).contains(component))
                .map(row -> "the receiver " + row.name()).toList();
    }
}

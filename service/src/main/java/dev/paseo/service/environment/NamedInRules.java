package dev.paseo.service.environment;

import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.service.component.ComponentChanges;
import dev.paseo.service.database.Json;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** The rules and preview templates that hold a component by its name. */
@Component
class NamedInRules implements ComponentChanges.Naming {

    private final Environments environments;
    private final EnvironmentMapper mapper;
    private final Json json;

    NamedInRules(Environments environments, EnvironmentMapper mapper, Json json) {
        this.environments = environments;
        this.mapper = mapper;
        this.json = json;
    }

    @Override
    public List<String> naming(String component) {
        return Stream.concat(
                environments.all().stream().filter(known -> known.rules().components().containsKey(component))
                        .map(known -> "the rules of " + known.name()),
                mapper.templates().stream().map(body -> json.read(body, EnvironmentsFile.Template.class))
                        .filter(template -> template.component().equals(component))
                        .map(template -> "the preview template " + template.name()))
                .toList();
    }
}

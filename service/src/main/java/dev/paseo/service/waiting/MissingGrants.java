package dev.paseo.service.waiting;

import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.component.Components;
import dev.paseo.service.secret.Secrets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Secrets that pipeline files name, and that their components may not, or that have no value. */
@Component
class MissingGrants {

    /**
     * A secret that a component's file names: {@code granted} is false where the component may not name it, else no
     * value is set.
     */
    record GrantView(String component, String secret, boolean granted) {}

    private final WaitingMapper mapper;
    private final Components components;
    private final Secrets secrets;

    MissingGrants(WaitingMapper mapper, Components components, Secrets secrets) {
        this.mapper = mapper;
        this.components = components;
        this.secrets = secrets;
    }

    /** A grant that is missing is a task from when the file is in force, not a failure in the night. */
    List<GrantView> all() {
        List<GrantView> missing = new ArrayList<>();
        mapper.heads().forEach(head -> components.file(head.fileId()).file().ifPresent(file -> {
            List<String> given = secrets.given(head.componentId());
            ofStages(file).stream().filter(name -> secrets.missing(List.of(name), head.componentId(), 0).contains(name))
                    .forEach(name -> missing.add(new GrantView(head.component(), name, given.contains(name))));
            file.deployment().map(recipe -> recipe.secrets()).orElse(List.of()).stream()
                    .filter(name -> !given.contains(name))
                    .forEach(name -> missing.add(new GrantView(head.component(), name, false)));
        }));
        return missing.stream().distinct().toList();
    }

    private static Set<String> ofStages(PipelineFile file) {
        Set<String> names = new LinkedHashSet<>();
        file.stages().forEach(stage -> names.addAll(stage.secrets()));
        return names;
    }
}

package dev.paseo.service.waiting;

import dev.paseo.service.component.Components;
import dev.paseo.service.secret.Secrets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.util.ConcurrentLruCache;

/** Secrets that pipeline files name, and that their components may not, or that have no value. */
@Component
class MissingGrants {

    /**
     * A secret that a component's file names: {@code granted} is false where the component may not name it, else no
     * value is set.
     */
    record GrantView(String component, String secret, boolean granted) {}

    /** The secrets that a file names: in stages, and in its deployment. */
    private record Named(Set<String> inStages, List<String> inDeployment) {}

    /** Of so many files what they name is kept at hand: it never changes, and reading a file takes milliseconds. */
    private static final int KEPT = 10_000;

    private final ConcurrentLruCache<Long, Named> named = new ConcurrentLruCache<>(KEPT, this::read);
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
        Map<Long, Map<String, Boolean>> given = secrets.given();
        mapper.heads().forEach(head -> {
            Named names = named.get(head.fileId());
            Map<String, Boolean> its = given.getOrDefault(head.componentId(), Map.of());
            names.inStages().stream().filter(name -> !its.getOrDefault(name, false))
                    .forEach(name -> missing.add(new GrantView(head.component(), name, its.containsKey(name))));
            names.inDeployment().stream().filter(name -> !its.containsKey(name))
                    .forEach(name -> missing.add(new GrantView(head.component(), name, false)));
        });
        return missing.stream().distinct().toList();
    }

    private Named read(long fileId) {
        return components.file(fileId).file().map(file -> {
            Set<String> inStages = new LinkedHashSet<>();
            file.stages().forEach(stage -> inStages.addAll(stage.secrets()));
            return new Named(inStages, file.deployment().map(recipe -> recipe.secrets()).orElse(List.of()));
        }).orElse(new Named(Set.of(), List.of()));
    }
}

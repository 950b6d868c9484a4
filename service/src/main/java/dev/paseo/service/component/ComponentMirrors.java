package dev.paseo.service.component;

import dev.paseo.service.source.Mirror;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceCredentials;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Mirrors of components' repositories: one for all components that come from one repository. */
@Component
class ComponentMirrors {

    private final ComponentMapper mapper;
    private final Mirrors mirrors;
    private final SourceCredentials credentials;
    private final Map<String, Long> firsts = new ConcurrentHashMap<>();

    ComponentMirrors(ComponentMapper mapper, Mirrors mirrors, SourceCredentials credentials) {
        this.mapper = mapper;
        this.mirrors = mirrors;
        this.credentials = credentials;
    }

    /** @param repository its address, as components name it */
    Mirror of(String repository) {
        long first = firsts.computeIfAbsent(repository, mapper::firstOf);
        return mirrors.of(first, repository, () -> credentials.of(first));
    }
}

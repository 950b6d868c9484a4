package dev.paseo.service.component;

import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceAccess;
import dev.paseo.service.source.SourceCredentials;
import java.net.URI;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Where a component's source is, when that changes. */
@Component
class SourceMoves {

    /** Where the source is then, and how it is reached. */
    record Reached(String repository, SourceAccess how) {}

    private final ComponentMapper mapper;
    private final Components components;
    private final Mirrors mirrors;
    private final SourceCredentials credentials;

    SourceMoves(ComponentMapper mapper, Components components, Mirrors mirrors, SourceCredentials credentials) {
        this.mapper = mapper;
        this.components = components;
        this.mirrors = mirrors;
        this.credentials = credentials;
    }

    /** Empty where neither the repository nor its credentials change; refused where it does not let us in. */
    Optional<Reached> source(RegisteredComponent component, ComponentChanges.ComponentChange change) {
        Optional<String> repository = change.repository()
                .or(() -> change.credentials().flatMap(how -> component.repository()));
        if (change.credentials().isEmpty() && repository.equals(component.repository())
                || repository.isEmpty() && change.credentials().isEmpty()) {
            return Optional.empty();
        }
        String before = component.repository().orElseThrow(() -> Refusal.conflict(component.name()
                + " has no repository: its versions are built elsewhere. Register another component for what is "
                + "built here"));
        String wanted = repository.orElseThrow();
        List<RegisteredComponent> others = before.equals(wanted) ? List.of() : components.ofRepository(wanted);
        if (!others.isEmpty()) {
            throw Refusal.conflict(wanted + " is already the repository of " + others.getFirst().name());
        }
        mirrors.allow(wanted);
        // Credentials are never shown to another host than the one that they were given for.
        SourceAccess how = change.credentials().orElseGet(() -> host(before).equals(host(wanted))
                ? credentials.of(mapper.firstOf(before)) : SourceAccess.NONE);
        how.check(wanted);
        mirrors.glance(wanted, how).listing();
        return Optional.of(new Reached(wanted, how));
    }

    private static String host(String repository) {
        URI address = URI.create(repository);
        return address.getScheme() + "://" + address.getAuthority();
    }

    /** In the transaction of the change. */
    void move(RegisteredComponent component, Reached reached) {
        mapper.moveRepository(component.repository().orElseThrow(), reached.repository());
        credentials.keep(mapper.firstOf(reached.repository()), reached.how());
    }
}

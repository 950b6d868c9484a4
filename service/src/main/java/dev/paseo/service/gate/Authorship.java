package dev.paseo.service.gate;

import dev.paseo.service.access.Accounts;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * Who wrote what is proposed: the authors, committers and co-authors of every commit between what is live and what is proposed, and
 * the pusher. Git is asked outside transactions; what it said is kept, since commits never change.
 */
@Component
public class Authorship {

    private static final TypeReference<Set<String>> ADDRESSES = new TypeReference<>() {};

    private final RulingMapper mapper;
    private final Components components;
    private final Accounts accounts;
    private final Json json;

    Authorship(RulingMapper mapper, Components components, Accounts accounts, Json json) {
        this.mapper = mapper;
        this.components = components;
        this.accounts = accounts;
        this.json = json;
    }

    /** Looks it up in git where it is not known yet. Outside any transaction. */
    public void learn(long component, Optional<String> live, String proposed) {
        String from = live.orElse("");
        if (mapper.authors(component, from, proposed).isEmpty()) {
            Set<String> addresses = components.mirror(components.byId(component)).authors(live, proposed);
            mapper.keepAuthors(component, from, proposed, json.write(addresses));
        }
    }

    /** The accounts behind it; empty where {@link #learn} was not called for these commits. */
    public Optional<Set<String>> accounts(long component, Optional<String> live, String proposed) {
        return mapper.authors(component, live.orElse(""), proposed).map(text -> {
            Set<String> addresses = new HashSet<>(json.read(text, ADDRESSES));
            addresses.addAll(mapper.pushers(component, proposed));
            Set<String> names = new HashSet<>();
            addresses.forEach(address -> accounts.accountOf(address).ifPresent(names::add));
            return names;
        });
    }

    /** The accounts of the uploader and of the authors that an upload states. */
    public Set<String> stated(long version) {
        Set<String> names = new HashSet<>();
        mapper.stated(version).forEach(address -> accounts.accountOf(address).ifPresent(names::add));
        return names;
    }
}

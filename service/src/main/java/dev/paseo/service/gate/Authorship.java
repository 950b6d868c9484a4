package dev.paseo.service.gate;

import dev.paseo.service.access.Accounts;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import java.util.Collection;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * Who wrote what is proposed: the authors, committers and co-authors of every commit between what is live and what is
 * proposed, and the pusher. Git is asked outside transactions; what it said is kept, since commits never change.
 */
@Component
public class Authorship {

    private static final TypeReference<Set<String>> ADDRESSES = new TypeReference<>() {};

    private final GateDecisionMapper mapper;
    private final Components components;
    private final Accounts accounts;
    private final Json json;

    Authorship(GateDecisionMapper mapper, Components components, Accounts accounts, Json json) {
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

    /**
     * Who is behind something.
     *
     * @param accounts by name
     * @param unknown  addresses and names that belong to no account
     */
    public record Behind(Set<String> accounts, Set<String> unknown) {

        /** All who are behind the one or the other. */
        Behind and(Behind other) {
            return new Behind(union(accounts, other.accounts), union(unknown, other.unknown));
        }

        private static Set<String> union(Set<String> one, Set<String> other) {
            Set<String> all = new HashSet<>(one);
            all.addAll(other);
            return all;
        }
    }

    /**
     * Authors, committers, co-authors and pushers of all commits in between; empty where {@link #learn} was not called
     * for these commits.
     */
    public Optional<Behind> behind(long component, Optional<String> live, String proposed) {
        return mapper.authors(component, live.orElse(""), proposed).map(text -> {
            Set<String> addresses = new HashSet<>(json.read(text, ADDRESSES));
            addresses.addAll(mapper.pushers(component, live.orElse(""), proposed));
            return known(addresses);
        });
    }

    private Behind known(Collection<String> addresses) {
        Behind behind = new Behind(new HashSet<>(), new HashSet<>());
        addresses.stream().filter(address -> !address.isBlank()).forEach(address -> accounts.accountOf(address)
                .ifPresentOrElse(behind.accounts()::add, () -> behind.unknown().add(address)));
        return behind;
    }

    /** The uploader and the authors that an upload states. */
    public Behind stated(long version) {
        return known(mapper.stated(version));
    }
}

package dev.paseo.service.gate;

import dev.paseo.service.access.Accounts;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.gate.GateDecisionMapper.WroteRow;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
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
        List<WroteRow> rows = mapper.wrote(component, live.orElse(""), proposed);
        return rows.stream().filter(row -> !row.pushed()).findFirst().map(authors -> {
            Set<String> addresses = new HashSet<>(json.read(authors.text(), ADDRESSES));
            rows.stream().filter(WroteRow::pushed).map(WroteRow::text).forEach(addresses::add);
            return known(addresses);
        });
    }

    private Behind known(Collection<String> addresses) {
        Set<String> unknown = addresses.stream().filter(address -> !address.isBlank())
                .collect(Collectors.toCollection(HashSet::new));
        Map<String, String> known = accounts.accountsOf(unknown);
        unknown.removeAll(known.keySet());
        return new Behind(new HashSet<>(known.values()), unknown);
    }

    /** The uploader and the authors that an upload states. */
    public Behind stated(long version) {
        return known(mapper.stated(version));
    }
}

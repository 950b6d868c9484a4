package dev.paseo.service.access;

import static java.util.stream.Collectors.toSet;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.access.AccountMapper.GrantRow;
import dev.paseo.service.access.AccountMapper.MayRow;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Accounts: who somebody is at this moment, in which groups, and what they may. */
@Component
public class Accounts {

    private final AccountMapper mapper;

    Accounts(AccountMapper mapper) {
        this.mapper = mapper;
    }

    /** Somebody by name, with what they may. */
    public Person named(String name) {
        return person(row(name));
    }

    public long idOf(String name) {
        return row(name).id();
    }

    /** Locks an account for the transaction under way, which is about to change it. */
    void hold(String name) {
        mapper.lock(name);
    }

    AccountRow row(String name) {
        return mapper.named(name).orElseThrow(
                () -> Refusal.notFound("There is no account " + name + NearestName.hint(name, mapper.allNames())));
    }

    public boolean none() {
        return mapper.count() == 0;
    }

    private Person person(AccountRow account) {
        return person(account.id(), account.name());
    }

    Person person(long id, String name) {
        List<MayRow> rows = mapper.may(id);
        return new Person(id, name, rows.stream().map(MayRow::group).filter(Objects::nonNull).collect(toSet()),
                grants(rows.stream().filter(row -> row.role() != null)
                        .map(row -> new GrantRow(row.role(), row.component(), row.environment())).toList()));
    }

    static List<Grant> grants(List<GrantRow> rows) {
        return rows.stream().map(row -> new Grant(Role.valueOf(row.role()), Optional.ofNullable(row.component()),
                Optional.ofNullable(row.environment()))).toList();
    }

    /**
     * Of each name the members of that group now, of those who may sign in; where there is no such group, the person
     * of that name; nobody where there is neither.
     */
    public Map<String, Set<String>> meant(Collection<String> names) {
        Map<String, Set<String>> meant = new HashMap<>();
        if (!names.isEmpty()) {
            mapper.members(names).forEach(row -> Optional.ofNullable(row.member())
                    .ifPresent(meant.computeIfAbsent(row.group(), group -> new HashSet<>())::add));
        }
        List<String> people = meant.keySet().containsAll(names) ? List.of() : mapper.names();
        names.forEach(name -> meant.computeIfAbsent(name, one -> people.contains(one) ? Set.of(one) : Set.of()));
        return meant;
    }

    /** Everybody who may sign in, with what they may. */
    public List<Person> people() {
        return mapper.names().stream().flatMap(name -> mapper.named(name).stream()).map(this::person).toList();
    }

    /** Everybody who may sign in. */
    public List<String> names() {
        return mapper.names();
    }

    public List<String> groups() {
        return mapper.groups();
    }

    /** Whether this account may still sign in. */
    public boolean isActive(long account) {
        return mapper.standing(account).disabledAt() == null;
    }

    /** The first verified address of an account. */
    public Optional<String> addressOf(long account) {
        return mapper.addressOf(account);
    }

    /** The accounts that verified addresses, or plain account names, stand for; without those of nobody. */
    public Map<String, String> accountsOf(Collection<String> addresses) {
        Map<String, String> accounts = new HashMap<>();
        Map<String, List<String>> given = addresses.stream()
                .collect(Collectors.groupingBy(address -> address.toLowerCase(Locale.ROOT)));
        if (!given.isEmpty()) {
            mapper.ofAddresses(given.keySet()).forEach(row -> Optional.ofNullable(given.remove(row.address()))
                    .ifPresent(known -> known.forEach(as -> accounts.put(as, row.name()))));
        }
        given.values().forEach(rest -> rest.forEach(
                as -> mapper.named(as).ifPresent(account -> accounts.put(as, account.name()))));
        return accounts;
    }

    /** Who may what, or who somebody is, is not as it was: what waits for people is judged again. */
    public void judgeAgain(Instant now) {
        mapper.wakePlaces(now);
        mapper.wakePassages(now);
    }
}

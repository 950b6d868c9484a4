package dev.paseo.service.access;

import static java.util.stream.Collectors.groupingBy;
import static java.util.stream.Collectors.mapping;
import static java.util.stream.Collectors.toList;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Role;
import dev.paseo.service.access.AccountViewMapper.AddressRow;
import dev.paseo.service.access.AccountViewMapper.GivenRow;
import dev.paseo.service.access.AccountViewMapper.MembershipRow;
import dev.paseo.service.access.AccountViewMapper.ListedAccountRow;
import dev.paseo.service.clock.ServiceClock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Accounts and groups as they are shown: a fixed number of questions, however many there are. */
@Component
class AccountViews {

    private final AccountViewMapper mapper;
    private final Accounts accounts;
    private final ServiceClock clock;

    AccountViews(AccountViewMapper mapper, Accounts accounts, ServiceClock clock) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.clock = clock;
    }

    /** Who disabled an account, when and why. */
    public record Disabled(String by, Instant at, String reason) {}

    /** An account as it is. {@code roles} are its own; {@code byGroups} those that its groups give. */
    public record AccountView(String name, List<String> roles, List<String> byGroups, List<String> groups,
            List<String> addresses, int tokens, Instant addedAt, Optional<Instant> signedInAt,
            boolean external, Optional<Disabled> disabled) {}

    /** A group: who is in it, of those who may sign in, and which roles it gives. */
    public record GroupView(String name, List<String> members, List<String> roles) {}

    List<AccountView> all() {
        return asked(null);
    }

    /** @throws dev.paseo.service.problem.Refusal where there is none of this name */
    AccountView one(String name) {
        return asked(accounts.row(name).name()).getFirst();
    }

    private List<AccountView> asked(@Nullable String name) {
        Map<Long, List<String>> groups = mapper.members(name).stream()
                .collect(groupingBy(MembershipRow::account, mapping(MembershipRow::group, toList())));
        List<GivenRow> given = mapper.roles(name);
        Map<Long, List<String>> own = given.stream().filter(row -> row.account() != null)
                .collect(groupingBy(GivenRow::account, mapping(AccountViews::words, toList())));
        Map<String, List<String>> ofGroups = ofGroups(given);
        Map<Long, List<String>> addresses = mapper.addresses(name).stream()
                .collect(groupingBy(AddressRow::account, mapping(AddressRow::address, toList())));
        return mapper.accounts(name, clock.now()).stream().map(account -> {
            List<String> in = groups.getOrDefault(account.id(), List.of());
            List<String> byGroups = in.stream().flatMap(group -> ofGroups.getOrDefault(group, List.of()).stream()
                    .map(role -> role + " by " + group)).toList();
            return new AccountView(account.name(), own.getOrDefault(account.id(), List.of()), byGroups, in,
                    addresses.getOrDefault(account.id(), List.of()), account.tokens(), account.createdAt(),
                    Optional.ofNullable(account.signedInAt()), account.externalSubject() != null, disabled(account));
        }).toList();
    }

    private static Optional<Disabled> disabled(ListedAccountRow account) {
        return Optional.ofNullable(account.disabledAt())
                .map(at -> new Disabled(Optional.ofNullable(account.disabledBy()).orElse(""), at,
                        Optional.ofNullable(account.disabledReason()).orElse("")));
    }

    private static Map<String, List<String>> ofGroups(List<GivenRow> given) {
        return given.stream().filter(row -> row.group() != null)
                .collect(groupingBy(GivenRow::group, mapping(AccountViews::words, toList())));
    }

    private static String words(GivenRow row) {
        return new Grant(Role.valueOf(row.role()), Optional.ofNullable(row.component()),
                Optional.ofNullable(row.environment())).words();
    }

    List<GroupView> groups() {
        Map<String, List<String>> members = mapper.members(null).stream().filter(row -> !row.disabled())
                .collect(groupingBy(MembershipRow::group, mapping(MembershipRow::name, toList())));
        Map<String, List<String>> roles = ofGroups(mapper.roles(null));
        return mapper.groups().stream().map(name -> new GroupView(name, members.getOrDefault(name, List.of()),
                roles.getOrDefault(name, List.of()))).toList();
    }
}

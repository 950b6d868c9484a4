package dev.paseo.service.access;

import dev.paseo.core.access.Grant;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Accounts as the trail states them: whether they may sign in and with what, their roles, groups, addresses and tokens.
 */
@Component
class AccountStates implements Guarded {

    private static final String KIND = "account";

    private final AccountMapper mapper;
    private final TokenMapper tokens;

    AccountStates(AccountMapper mapper, TokenMapper tokens) {
        this.mapper = mapper;
        this.tokens = tokens;
    }

    static String subject(String name) {
        return KIND + " " + name;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.allNames().stream().collect(Collectors.toMap(AccountStates::subject, this::text));
    }

    String text(String name) {
        AccountMapper.AccountRow row = mapper.named(name).orElseThrow();
        AccountMapper.StandingRow standing = mapper.standing(row.id());
        return String.join("\n", "password " + row.passwordHash(), "disabled " + (row.disabledAt() != null),
                "subject " + standing.externalSubject(),
                "roles " + Accounts.grants(mapper.ownGrants(row.id())).stream().map(Grant::words).sorted().toList(),
                "groups " + mapper.groupsOf(row.id()).stream().sorted().toList(),
                "addresses " + mapper.addresses(row.id()).stream().sorted().toList(),
                "tokens " + tokens.valid(row.id()));
    }

    /** Groups as the trail states them: which roles they give. */
    @Component
    static class OfGroups implements Guarded {

        private static final String KIND = "group";

        private final AccountMapper mapper;

        OfGroups(AccountMapper mapper) {
            this.mapper = mapper;
        }

        static String subject(String name) {
            return KIND + " " + name;
        }

        @Override
        public String kind() {
            return KIND;
        }

        /** Those that give none are of no account. */
        @Override
        public Map<String, String> states() {
            return mapper.groups().stream().filter(name -> !mapper.groupGrants(name).isEmpty())
                    .collect(Collectors.toMap(OfGroups::subject, this::text, (one, other) -> one));
        }

        String text(String name) {
            return "roles " + Accounts.grants(mapper.groupGrants(name)).stream().map(Grant::words).sorted().toList();
        }
    }
}

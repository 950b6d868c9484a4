package dev.paseo.service.grant;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.secret.ValueReach;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.EnvironmentsThatAsk;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * A secret's value that would hold further than those of its name do: with a second person where an environment there
 * asks one. No value ever waits; it is set afterwards.
 */
@Component
class Widening implements Agreements.Carrier {

    private static final String KIND = "reach";

    private record Wide(String secret, ValueReach reach) {}

    private final Secrets secrets;
    private final SecretScopes scopes;
    private final EnvironmentsThatAsk asking;
    private final Agreements agreements;
    private final Changes changes;
    private final Json json;

    Widening(Secrets secrets, SecretScopes scopes, EnvironmentsThatAsk asking, Agreements agreements, Changes changes,
            Json json) {
        this.secrets = secrets;
        this.scopes = scopes;
        this.asking = asking;
        this.agreements = agreements;
        this.changes = changes;
        this.json = json;
    }

    /**
     * Whether a value there would hold further, to be marked when it is set; refused where a second person is asked
     * before.
     */
    boolean widens(String secret, ValueReach reach, Person by) {
        if (!reach.widens(secrets.reaches(secret))) {
            return false;
        }
        agreements.ask(new Wanted(KIND,
                List.of(words(secret, reach),
                        "whoever may set " + secret + " there sets its value afterwards; none is kept until then"),
                json.write(new Wide(secret, reach)), asking.within(reach)), by);
        return true;
    }

    /** What goes live there within a day is looked at; in the transaction that sets it. */
    void mark(String secret, ValueReach reach, Person by) {
        scopes.loosened(reach, "where a secret holds: " + words(secret, reach), by);
    }

    private static String words(String secret, ValueReach reach) {
        return "a value of " + secret + " may hold " + reach.words() + ", further than before";
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Set<String> asks(String body) {
        return asking.within(json.read(body, Wide.class).reach()).keySet();
    }

    @Override
    public void carryOut(String body, Person by, String agreedBy) {
        Wide wide = json.read(body, Wide.class);
        Permission.require(by, Action.SET_SECRET, wide.reach().component(), wide.reach().environment());
        Secrets.Scope scope = scopes.of(wide.reach().component(), wide.reach().environment(), Optional.empty());
        changes.run(() -> {
            secrets.reserve(wide.secret(), scope);
            changes
                    .record(AuditTrail.Entry.of(by.name(), "secret may hold further", wide.secret())
                            .in(wide.reach().environment().orElse(""))
                            .with("component", wide.reach().component().orElse("")).with("agreed by", agreedBy));
        });
    }
}

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
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Gives secrets to components; with a second person where an environment that the component reaches asks one. */
@Component
class Granting implements Agreements.Carrier {

    private static final String KIND = "grant";

    private record Grant(String component, String secret) {}

    private final Secrets secrets;
    private final SecretScopes scopes;
    private final EnvironmentsThatAsk asking;
    private final Agreements agreements;
    private final Changes changes;
    private final Json json;

    Granting(Secrets secrets, SecretScopes scopes, EnvironmentsThatAsk asking, Agreements agreements, Changes changes,
            Json json) {
        this.secrets = secrets;
        this.scopes = scopes;
        this.asking = asking;
        this.agreements = agreements;
        this.changes = changes;
        this.json = json;
    }

    void grant(String component, String secret, Person by) {
        if (!secrets.given(scopes.component(component)).contains(secret)) {
            agreements.ask(new Wanted(KIND, List.of(words(component, secret)),
                    json.write(new Grant(component, secret)), asking.ofComponent(component)), by);
        }
        granted(component, secret, by, Optional.empty());
    }

    private static String words(String component, String secret) {
        return component + " is given the secret " + secret + ": its pipeline file may name it";
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public void carryOut(String body, Person by, String agreedBy) {
        Grant grant = json.read(body, Grant.class);
        Permission.require(by, Action.SET_SECRET, "give secrets to " + grant.component(),
                Optional.of(grant.component()), Optional.empty());
        granted(grant.component(), grant.secret(), by, Optional.of(agreedBy));
    }

    @Override
    public Set<String> asks(String body) {
        return asking.ofComponent(json.read(body, Grant.class).component()).keySet();
    }

    private void granted(String component, String secret, Person by, Optional<String> agreedBy) {
        long id = scopes.component(component);
        changes.run(() -> {
            secrets.open(id, secret);
            if (agreedBy.isEmpty()) {
                scopes.loosened(new ValueReach(Optional.of(component), Optional.empty(), Optional.empty()),
                        "what " + component + " is given: the secret " + secret, by);
            }
            scopes.wake();
            changes.record(secrets.stating(AuditTrail.Entry.of(by.name(), "secret granted", secret)
                    .with("component", component).with("agreed by", agreedBy.orElse("")), id));
        });
    }

    /** @throws Refusal where it was not given */
    void revoke(String component, String secret, Person by) {
        long id = scopes.component(component);
        changes.run(() -> {
            if (!secrets.close(id, secret)) {
                throw Refusal.conflict(component + " was not given the secret " + secret);
            }
            scopes.wake();
            changes.record(secrets.stating(AuditTrail.Entry.of(by.name(), "secret taken back", secret)
                    .with("component", component), id));
        });
    }
}

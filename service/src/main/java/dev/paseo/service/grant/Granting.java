package dev.paseo.service.grant;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.EnvironmentsThatAsk;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.permission.Permission;
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
    private final Components components;
    private final EnvironmentsThatAsk asking;
    private final Agreements agreements;
    private final Around around;

    /** How it is written down. */
    @Component("grantingAround")
    record Around(Changes changes, Loosenings loosenings, Environments environments, Json json) {}

    Granting(Secrets secrets, Components components, EnvironmentsThatAsk asking, Agreements agreements, Around around) {
        this.secrets = secrets;
        this.components = components;
        this.asking = asking;
        this.agreements = agreements;
        this.around = around;
    }

    void grant(String component, String secret, Person by) {
        if (!secrets.given(components.named(component).id()).contains(secret)) {
            agreements.ask(new Wanted(KIND, List.of(words(component, secret)),
                    around.json().write(new Grant(component, secret)), asking.ofComponent(component)), by);
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
        Grant grant = around.json().read(body, Grant.class);
        Permission.require(by, Action.SET_SECRET, "give secrets to " + grant.component(),
                Optional.of(grant.component()), Optional.empty());
        granted(grant.component(), grant.secret(), by, Optional.of(agreedBy));
    }

    @Override
    public Set<String> asks(String body) {
        return asking.ofComponent(around.json().read(body, Grant.class).component()).keySet();
    }

    private void granted(String component, String secret, Person by, Optional<String> agreedBy) {
        long id = components.named(component).id();
        around.changes().run(() -> {
            secrets.open(id, secret);
            if (agreedBy.isEmpty()) {
                around.loosenings().ofComponent(id, "what " + component + " is given: the secret " + secret, by.name());
            }
            around.environments().wakeAll();
            around.changes().record(secrets.stating(AuditTrail.Entry.of(by.name(), "secret granted", secret)
                    .with("component", component).with("agreed by", agreedBy.orElse("")), id));
        });
    }
}

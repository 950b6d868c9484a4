package dev.paseo.service.component;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.database.Json;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.permission.Permission;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Trusts the branches of a component that a second person has agreed to. */
@Component
class TrustCarrier implements Agreements.Carrier {

    static final String KIND = "trust";

    /** @param trusted all patterns then */
    record Trust(String component, List<String> trusted) {}

    private final Components components;
    private final ComponentChanges changes;
    private final Agreements.Askers asking;
    private final Json json;

    TrustCarrier(Components components, ComponentChanges changes, Agreements.Askers asking, Json json) {
        this.components = components;
        this.changes = changes;
        this.asking = asking;
        this.json = json;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Set<String> asks(String body) {
        return asking.ofComponent(json.read(body, Trust.class).component()).keySet();
    }

    @Override
    public void carryOut(String body, Person by, String agreedBy) {
        Trust trust = json.read(body, Trust.class);
        Permission.require(by, Action.REGISTER_COMPONENT, "change " + trust.component(), Optional.of(trust.component()),
                Optional.empty());
        changes.agreed(components.named(trust.component()), trust.trusted(), by.name(), agreedBy);
    }
}

package dev.paseo.service.store;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.store.StoreMapper.SightingRow;
import dev.paseo.service.store.StoreMapper.StoreRow;
import dev.paseo.service.store.WatchedStore.Where;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** The stores that components observe for versions that appear in them. */
@Component
public class Stores {

    private final StoreMapper mapper;
    private final StoreAddresses addresses;
    private final Secrets secrets;
    private final Changes changes;
    private final Json json;

    Stores(StoreMapper mapper, StoreAddresses addresses, Secrets secrets, Changes changes, Json json) {
        this.mapper = mapper;
        this.addresses = addresses;
        this.secrets = secrets;
        this.changes = changes;
        this.json = json;
    }

    long watch(RegisteredComponent component, Where where, Optional<String> login, String by) {
        addresses.check(where);
        return changes.in(() -> {
            StoreMapper.NewStore row = new StoreMapper.NewStore(component.id(), where,
                    where.kind().name().toLowerCase(Locale.ROOT), json.write(where), changes.now());
            mapper.add(row);
            login.ifPresent(words -> secrets.set("PASEO_STORE_" + row.id, words,
                    Secrets.Scope.of(component.id(), 0), OptionalLong.empty()));
            changes.record(AuditTrail.Entry.of(by, "store observed", component.name())
                    .with("address", where.address()).with("pattern", where.pattern()));
            return row.id;
        });
    }

    List<StoreRow> of(long component) {
        return mapper.of(component);
    }

    List<SightingRow> sightings(long store) {
        return mapper.sightings(store);
    }

    Where where(StoreRow row) {
        return json.read(row.body(), Where.class);
    }

    void stop(long id, RegisteredComponent component, String by) {
        StoreRow row = mapper.byId(id).filter(each -> each.componentId() == component.id())
                .orElseThrow(() -> Refusal.notFound(component.name() + " observes no store " + id));
        changes.run(() -> {
            mapper.dropSightings(id);
            mapper.drop(id);
            changes
                    .record(AuditTrail.Entry.of(by, "store no longer observed", component.name()).with("address",
                            row.address()));
        });
    }

    /** Somebody said that something has arrived: looks soon. */
    public void soon(long component) {
        mapper.soon(component, changes.now());
    }
}

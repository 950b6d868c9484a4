package dev.paseo.service.store;

import dev.paseo.service.arrival.Arrivals;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.store.StoreMapper.SightingRow;
import dev.paseo.service.store.StoreMapper.StoreRow;
import dev.paseo.service.store.WatchedStore.Sighting;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What was seen in stores: each name is sealed once, or it is said why not. */
@Component
class Sightings {

    private final StoreMapper mapper;
    private final Arrivals arrivals;
    private final Quotas quotas;
    private final Changes changes;

    Sightings(StoreMapper mapper, Arrivals arrivals, Quotas quotas, Changes changes) {
        this.mapper = mapper;
        this.arrivals = arrivals;
        this.quotas = quotas;
        this.changes = changes;
    }

    Map<String, SightingRow> known(StoreRow row) {
        return mapper.sightings(row.id()).stream().collect(Collectors.toMap(SightingRow::name, each -> each));
    }

    /** It was there before anybody looked: it is no arrival. */
    void passedOver(StoreRow row, Sighting sighting) {
        mapper.see(row.id(), sighting.number(), sighting.digest(), null,
                "it was there before the store was observed", changes.now());
    }

    /** A name that points to something else than when it was seen first: told once. */
    void moved(StoreRow row, RegisteredComponent component, SightingRow before, Sighting now) {
        String reason = "it was seen as " + before.digest() + " and now is " + now.digest()
                + "; what was sealed stays as it was";
        if (!before.digest().equals(now.digest()) && !reason.equals(before.reason())) {
            changes.run(() -> {
                mapper.say(row.id(), now.number(), StoreWatch.cut(reason));
                changes
                        .record(AuditTrail.Entry
                                .of("paseo", "store moved a name", component.name() + " " + now.number())
                                .because(StoreWatch.cut(reason)).with("store", row.address()));
                changes.publish("trigger", component.name());
            });
        }
    }

    /** @throws Refusal unavailable where the store is away meanwhile */
    void arrived(StoreRow row, RegisteredComponent component, WatchedStore store, Sighting sighting) {
        quotas.room(component.id(), 0);
        try {
            Arrivals.checkNumber(sighting.number());
            List<Versions.Artifact> artifacts = store.fetch(sighting);
            quotas.kept(component.id(), artifacts.stream().mapToLong(Versions.Artifact::size).sum());
            changes.run(() -> {
                Arrivals.Result result = arrivals.seal(component,
                        new Arrivals.Arrived(sighting.number(), artifacts, null, List.of(), Set.of(),
                                "in the observed " + row.kind() + " " + row.address(), ""));
                mapper.see(row.id(), sighting.number(), sighting.digest(), result.version(), null,
                        changes.now());
            });
        } catch (Refusal refused) {
            if (refused.kind() == Refusal.Kind.UNAVAILABLE) {
                throw refused;
            }
            changes.run(() -> {
                mapper.see(row.id(), sighting.number(), sighting.digest(), null,
                        StoreWatch.cut(String.valueOf(refused.getMessage())), changes.now());
                changes
                        .record(AuditTrail.Entry
                                .of("paseo", "arrival refused", component.name() + " " + sighting.number())
                                .because(StoreWatch.cut(String.valueOf(refused.getMessage()))));
                changes.publish("trigger", component.name());
            });
        }
    }
}

package dev.paseo.service.request;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.text.Word;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.Places;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a request leaves: its entry in the trail with the hold it goes past, and the hold that a rollback sets. */
@Component
class RequestTrail {

    private final AuditTrail audit;
    private final Holds holds;
    private final Places places;

    RequestTrail(AuditTrail audit, Holds holds, Places places) {
        this.audit = audit;
        this.holds = holds;
        this.places = places;
    }

    void record(long id, Place now, Wanted wanted) {
        Versions.Version version = wanted.version();
        audit.record(AuditTrail.Entry
                .of(wanted.person().map(Person::name).orElse("paseo"), Word.of(wanted.kind()) + " requested",
                        version.component() + " " + version.number())
                .in(now.environment()).because(wanted.cause().sentence())
                .with("deployment", Long.toString(id)).with("emergency", wanted.emergency().orElse(""))
                .with("past the hold", wanted.person().flatMap(person -> holds.held(now))
                        .map(hold -> hold.by() + ": " + hold.reason()).orElse("")));
        if (wanted.kind() == Kind.ROLLBACK && holds.held(now).isEmpty()) {
            holds.hold(now, wanted.person().orElseThrow(),
                    "rolled back" + places.live(now).map(live -> " from " + live.number()).orElse("")
                            + (wanted.cause() instanceof Cause.Asked(String by, Optional<String> why)
                                    ? why.filter(text -> !text.isBlank()).map(text -> ": " + text).orElse("")
                                    : ""));
        }
    }
}

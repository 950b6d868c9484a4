package dev.paseo.service.gate;

import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Tick;
import dev.paseo.language.NearestName;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.gate.Gates.Standing;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What people have said at gates: decisions, items of checklists, who stands in for whom. */
@Component
public class GateDecisions {

    private final GateDecisionMapper mapper;
    private final ServiceClock clock;
    private final Json json;

    GateDecisions(GateDecisionMapper mapper, ServiceClock clock, Json json) {
        this.mapper = mapper;
        this.clock = clock;
        this.json = json;
    }

    /** What somebody said about an item, and the digest of the picture that they gave with it. */
    public record Ticked(String item, String by, String outcome, String note, Optional<String> picture, Instant at) {}

    public List<Ticked> ticks(Standing standing) {
        return mapper.ticks(standing.deployment(), standing.passage()).stream()
                .map(row -> new Ticked(row.item(), row.by(), row.outcome().toLowerCase(java.util.Locale.ROOT),
                        row.note(),
                        Optional.ofNullable(row.picture()), row.at()))
                .toList();
    }

    /** Writes a decision down, in the transaction under way; in whose place it was made. */
    public Optional<String> decide(Standing standing, Evaluation gate, Person person, boolean yes, String comment) {
        Optional<String> inPlaceOf = gate.inPlaceOf(person.name());
        Subject subject = gate.gate().facts().subject();
        mapper.add(standing.deployment(), standing.passage(), person.id(), inPlaceOf.orElse(null), yes, comment,
                subject.digest(), json.write(subject), gate.now());
        return inPlaceOf;
    }

    /** The entry of a decision, or of one taken back, with how the decisions are after it. */
    public AuditTrail.Entry stating(AuditTrail.Entry entry, Standing standing) {
        return GateDecisionStates.into(entry, standing, mapper);
    }

    /** Takes back what this person approved; whether there was anything. */
    public boolean takeBack(Standing standing, long account) {
        return mapper.takeBack(standing.deployment(), standing.passage(), account, clock.now()) > 0;
    }

    /**
     * Writes a tick down, in the transaction under way; refused where the item is not on a list that this person ticks.
     */
    public void tick(Standing standing, Evaluation gate, long account, Tick tick, Optional<String> picture) {
        List<String> items = gate.checklists().stream().flatMap(list -> list.items().stream()).toList();
        if (!items.contains(tick.item())) {
            throw Refusal.notFound("“" + tick.item() + "” is not on the list" + NearestName.hint(tick.item(), items));
        }
        gate.tickRefusal(tick.item(), tick.by()).ifPresent(why -> {
            throw Refusal.notAllowed(why);
        });
        mapper.addTick(standing.deployment(), standing.passage(), account, tick, picture.orElse(null));
    }

    /** From now on the other decides about this deployment in this one's place. */
    public void standIn(long account, long deputy, long deployment) {
        mapper.addStandIn(account, deputy, deployment, clock.now(), account);
    }
}

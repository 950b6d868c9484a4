package dev.paseo.service.agent;

import dev.paseo.service.access.Tokens;
import dev.paseo.service.agent.AgentMapper.AgentRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Agents: invited with a one-time token, enrolled, and known by a secret from then on. */
@Component
public class Agents {

    private static final Duration INVITATION = Duration.ofHours(1);
    private static final Duration PRESENT = Duration.ofSeconds(45);

    /** An agent; {@code host} is the one host whose deployments it carries out, empty for one that runs stages. */
    public record Enlisted(long id, String name, Optional<Long> hostId, Optional<String> host, Optional<Instant> lastContact, boolean present) {}

    private final AgentMapper mapper;
    private final Transactions transactions;
    private final ServiceClock clock;
    private final AuditTrail audit;
    private final Telling telling;

    Agents(AgentMapper mapper, Transactions transactions, ServiceClock clock, AuditTrail audit, Telling telling) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.audit = audit;
        this.telling = telling;
    }

    /** A one-time token, good for an hour, with which one process becomes this agent. */
    String invite(String name, Optional<String> host, String by) {
        if (!name.matches("[a-z0-9][a-z0-9-]{0,62}")) {
            throw Refusal.invalid("/name", "an agent's name has small letters, digits and dashes, at most 63; got '" + name + "'");
        }
        String token = Tokens.fresh("paseo-enrolment");
        transactions.run(() -> {
            host.ifPresent(mapper::addHost);
            mapper.invite(name, host.orElse(null), Tokens.hash(token), clock.now().plus(INVITATION));
            audit.record(AuditTrail.Entry.of(by, "agent invited", name).with("host", host.orElse("")));
        });
        return token;
    }

    /** The agent that this invitation makes of whoever has the secret; the same again, for an answer that was lost. */
    Optional<Enlisted> enrol(String invitation, String secret) {
        return transactions.in(() -> {
            if (mapper.enrol(Tokens.hash(invitation), Tokens.hash(secret), clock.now()) == 0) {
                return bySecret(secret);
            }
            Optional<Enlisted> agent = bySecret(secret);
            agent.ifPresent(enrolled -> audit.record(AuditTrail.Entry.of(enrolled.name(), "agent enrolled", enrolled.name())));
            return agent;
        });
    }

    Optional<Enlisted> bySecret(String secret) {
        return mapper.ofToken(Tokens.hash(secret)).map(this::enlisted);
    }

    /** Notes that it was heard of; written at most every ten seconds. */
    void heard(Enlisted agent) {
        Instant now = clock.now();
        if (agent.lastContact().filter(last -> last.isAfter(now.minusSeconds(10))).isEmpty()) {
            mapper.heard(agent.id(), now);
            if (!agent.present()) {
                telling.tell("agent", agent.name());
            }
        }
    }

    public List<Enlisted> all() {
        return mapper.all().stream().map(this::enlisted).toList();
    }

    Enlisted byId(long id) {
        return enlisted(mapper.byId(id));
    }

    private Enlisted enlisted(AgentRow row) {
        boolean present = row.lastContact() != null && row.lastContact().isAfter(clock.now().minus(PRESENT));
        return new Enlisted(row.id(), row.name(), Optional.ofNullable(row.hostId()), Optional.ofNullable(row.host()),
                Optional.ofNullable(row.lastContact()), present);
    }
}

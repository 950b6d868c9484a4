package dev.paseo.service.agent;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.change.Changes;
import dev.paseo.core.text.Shortened;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.agent.AgentMapper.AgentRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Agents: invited with a one-time token, enrolled, and known by a secret from then on. */
@Component
public class Agents {

    private static final Duration INVITATION = Duration.ofHours(1);
    /** How old an agent's secret gets. */
    private static final Duration SECRET = Duration.ofDays(90);
    private static final TypeReference<List<String>> OFFERS = new TypeReference<>() {};
    private static final Duration PRESENT = Duration.ofSeconds(45);
    private static final int LONGEST_WALLS = 500;

    /**
     * An agent.
     *
     * @param host    the one host whose deployments it carries out, empty for one that runs stages
     * @param offers  assigned when it is invited: what stages may want of it
     * @param drained it takes nothing new
     */
    public record Agent(long id, String name, Optional<Long> hostId, Optional<String> host, List<String> offers,
            boolean drained,
            Optional<Instant> lastContact, boolean present, Walls walls) {}

    /**
     * What keeps an agent's work to itself.
     *
     * @param words     as the agent tells them; empty where it has not been heard of
     * @param hold      whether they hold work of branches that are not trusted
     * @param untrusted whether the agent is assigned to such work
     */
    public record Walls(Optional<String> words, boolean hold, boolean untrusted) {

        boolean takeUntrusted() {
            return hold && untrusted;
        }
    }

    private final AgentMapper mapper;
    private final Changes changes;
    private final Nudge nudge;
    private final Json json;

    Agents(AgentMapper mapper, Changes changes, Nudge nudge, Json json) {
        this.mapper = mapper;
        this.changes = changes;
        this.nudge = nudge;
        this.json = json;
    }

    /** A one-time token, good for an hour, with which one process becomes this agent. */
    String invite(String name, Optional<String> host, List<String> offers, boolean untrusted, String by) {
        if (!name.matches("[a-z0-9][a-z0-9-]{0,62}")) {
            throw Refusal.invalid("/name",
                    "An agent's name has small letters, digits and dashes, at most 63; got “" + name + "”");
        }
        offers.stream().filter(offer -> !offer.matches("[a-z0-9][a-z0-9-]{0,62}")).findFirst().ifPresent(offer -> {
            throw Refusal.invalid("/offers",
                    "What an agent offers has small letters, digits and dashes, at most 63; got “" + offer + "”");
        });
        String token = Tokens.fresh("paseo-enrolment");
        changes.run(() -> {
            host.ifPresent(mapper::addHost);
            mapper.invite(name, host.orElse(null), json.write(offers), untrusted, Sha256.hex(token),
                    changes.now().plus(INVITATION));
            changes.record(AuditTrail.Entry.of(by, "agent invited", name).with("host", host.orElse(""))
                    .with("offers", String.join(", ", offers)).with("untrusted", Boolean.toString(untrusted)));
        });
        return token;
    }

    /** The agent that this invitation makes of whoever has the secret; the same again, for an answer that was lost. */
    Optional<Agent> enrol(String invitation, String secret) {
        return changes.in(() -> {
            if (mapper.enrol(Sha256.hex(invitation), Sha256.hex(secret), changes.now()) == 0) {
                return bySecret(secret);
            }
            Optional<Agent> agent = bySecret(secret);
            agent.ifPresent(
                    enrolled -> changes
                            .record(AuditTrail.Entry.of(enrolled.name(), "agent enrolled", enrolled.name())));
            return agent;
        });
    }

    /**
     * A one-time token with which the agent takes a new secret, where an administrator wants that or its secret is old.
     */
    public Optional<String> renewal(Agent agent) {
        String token = Tokens.fresh("paseo-enrolment");
        return mapper.renew(agent.id(), Sha256.hex(token), changes.now().plus(INVITATION),
                changes.now().minus(SECRET)) == 1 ? Optional.of(token) : Optional.empty();
    }

    /** Its next look brings it a token for a new secret; what it works on goes on. */
    Agent wantRenewal(String name, String by) {
        return changes.in(() -> {
            if (mapper.wantRenewal(name) == 0) {
                throw unknown(name);
            }
            changes.record(AuditTrail.Entry.of(by, "agent's secret to be renewed", name));
            return all().stream().filter(agent -> agent.name().equals(name)).findFirst()
                    .orElseThrow(() -> unknown(name));
        });
    }

    private Refusal unknown(String name) {
        return Refusal.notFound(
                "There is no agent " + name + NearestName.hint(name, all().stream().map(Agent::name).toList()));
    }

    public Optional<Agent> bySecret(String secret) {
        return mapper.ofToken(Sha256.hex(secret)).map(this::enlisted);
    }

    /** Notes that it was heard of; written at most every ten seconds. */
    public void heard(Agent agent) {
        Instant now = changes.now();
        if (agent.lastContact().filter(last -> last.isAfter(now.minusSeconds(10))).isEmpty()) {
            mapper.heard(agent.id(), now);
            if (!agent.present()) {
                changes.publish("agent", agent.name());
            }
        }
    }

    /** Notes which walls its work has; what changes is in the audit trail. */
    void walled(Agent agent, String words, boolean hold) {
        String told = Shortened.to(words, LONGEST_WALLS);
        if (agent.walls().words().equals(Optional.of(told)) && agent.walls().hold() == hold) {
            return;
        }
        changes.run(() -> {
            mapper.walls(agent.id(), told, hold);
            changes.record(AuditTrail.Entry.of(agent.name(), "agent's walls told", agent.name()).with("walls", told)
                    .with("holds untrusted work", Boolean.toString(hold)));
            changes.publish("agent", agent.name());
        });
    }

    /** Drains an agent, which then finishes what it has and takes nothing new, or lets it return. */
    Agent drain(String name, boolean drained, String by) {
        return changes.in(() -> {
            mapper.drain(name, drained);
            changes.record(AuditTrail.Entry.of(by, drained ? "agent drained" : "agent returned", name));
            changes.publish("agent", name);
            nudge.afterCommit(Nudge.work(null));
            return all().stream().filter(agent -> agent.name().equals(name)).findFirst()
                    .orElseThrow(() -> unknown(name));
        });
    }

    /** For what a stage waits that no agent has taken yet, as a sentence. */
    public String waitsFor(List<String> wants, boolean untrusted) {
        List<Agent> offering = all().stream()
                .filter(agent -> agent.host().isEmpty() && agent.offers().containsAll(wants)).toList();
        List<Agent> fitting = untrusted ? offering.stream().filter(agent -> agent.walls().takeUntrusted()).toList()
                : offering;
        String kind = (wants.isEmpty() ? "an agent that runs stages"
                : "an agent that offers " + String.join(", ", wants))
                + (untrusted ? " and takes work of branches that are not trusted" : "");
        if (fitting.isEmpty()) {
            return "waits for " + kind + ": "
                    + offering.stream().filter(agent -> agent.walls().untrusted()).findFirst().map(Agents::doesNotHold)
                            .orElse(offering.isEmpty() || !untrusted ? "there is none"
                                    : "none is assigned to it (paseo agent enrol NAME --untrusted)");
        }
        List<Agent> here = fitting.stream().filter(Agent::present).toList();
        if (here.isEmpty()) {
            return "waits for " + kind + ": " + names(fitting) + " is away";
        }
        List<Agent> taking = here.stream().filter(agent -> !agent.drained()).toList();
        return "waits for " + kind + ": "
                + (taking.isEmpty() ? names(here) + " is drained" : names(taking) + " is busy");
    }

    /** Why it takes no untrusted work although it is assigned to it. */
    private static String doesNotHold(Agent agent) {
        return agent.name() + " is assigned to it, but its walls do not hold it: "
                + agent.walls().words().orElse("it has not been heard of");
    }

    /** Why the agent of this host does not take previews; empty where it does. */
    public Optional<String> refusesPreviews(String name) {
        return all().stream().filter(agent -> agent.name().equals(name)).filter(agent -> !agent.walls().takeUntrusted())
                .findFirst()
                .map(agent -> agent.walls().untrusted() ? doesNotHold(agent)
                        : name + " is not assigned to work of branches that are not trusted (paseo agent enrol "
                                + name + agent.host().map(host -> " --host " + host).orElse("") + " --untrusted)");
    }

    private static String names(List<Agent> agents) {
        return String.join(", ", agents.stream().map(Agent::name).limit(3).toList())
                + (agents.size() > 3 ? " and others" : "");
    }

    int working(long agent) {
        return mapper.working(agent);
    }

    public List<Agent> all() {
        return mapper.all().stream().map(this::enlisted).toList();
    }

    Agent byId(long id) {
        return enlisted(mapper.byId(id));
    }

    private Agent enlisted(AgentRow row) {
        boolean present = row.lastContact() != null && row.lastContact().isAfter(changes.now().minus(PRESENT));
        return new Agent(row.id(), row.name(), Optional.ofNullable(row.hostId()), Optional.ofNullable(row.host()),
                json.read(row.offers(), OFFERS), row.drained(), Optional.ofNullable(row.lastContact()), present,
                new Walls(Optional.ofNullable(row.walls()), row.walled(), row.untrusted()));
    }
}

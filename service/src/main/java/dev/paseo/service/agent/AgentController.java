package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Enrolment;
import dev.paseo.api.agent.Lease;
import dev.paseo.api.agent.WorkRequest;
import dev.paseo.service.agent.Agents.Agent;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.settings.Settings;
import io.swagger.v3.oas.annotations.Hidden;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What an agent asks with its own secret: to be enrolled, and for work. */
@Hidden
@RestController
@RequestMapping("/agent/v1")
class AgentController {

    private static final Logger LOG = LoggerFactory.getLogger(AgentController.class);
    private static final int SHORTEST_SECRET = 40;
    private static final long LONGEST_POLL_MILLIS = 25_000;

    private final Agents agents;
    private final WorkBoard board;
    private final Owners owners;
    private final Nudge nudge;
    private final Settings settings;
    /** The newest request for work of each agent: an older one is of a life or a connection that is over. */
    private final Map<Long, Object> asking = new ConcurrentHashMap<>();

    AgentController(Agents agents, WorkBoard board, Owners owners, Nudge nudge, Settings settings) {
        this.agents = agents;
        this.board = board;
        this.owners = owners;
        this.nudge = nudge;
        this.settings = settings;
    }

    /** Makes whoever has a one-time token an agent, with a secret of its own. */
    @PostMapping("/enrolment")
    Enrolment.Enrolled enrol(@RequestBody Enrolment enrolment) {
        if (enrolment.secret().length() < SHORTEST_SECRET) {
            throw Refusal.invalid("/secret", "An agent's secret has at least " + SHORTEST_SECRET + " characters");
        }
        return agents.enrol(enrolment.token(), enrolment.secret()).map(agent -> new Enrolment.Enrolled(agent.name()))
                .orElseThrow(() -> Refusal
                        .signedOut("This enrolment token is unknown, used or older than an hour; ask for a new one."));
    }

    /** Waits for work; 204 where none came in time, or where the agent has asked again meanwhile. */
    @PostMapping("/work")
    ResponseEntity<Assignment> work(@RequestHeader("Authorization") String authorization,
            @RequestBody WorkRequest request,
            @RequestParam(defaultValue = "" + LONGEST_POLL_MILLIS) long waitMillis) throws InterruptedException {
        Agent known = agents.bySecret(authorization.replaceFirst("^Bearer ", ""))
                .orElseThrow(() -> Refusal.signedOut("No agent is enrolled with this token"));
        agents.heard(known);
        request.walls().ifPresent(walls -> agents.walled(known, walls, request.walled().orElse(false)));
        Agent agent = agents.byId(known.id());
        Optional<Assignment> lost = board.sendAgain(agent, request.held()).flatMap(this::given);
        if (lost.isPresent()) {
            return ResponseEntity.ok(lost.get());
        }
        Object mine = new Object();
        asking.put(agent.id(), mine);
        long until = System.nanoTime() + Math.clamp(waitMillis, 0, LONGEST_POLL_MILLIS) * 1_000_000;
        try (Nudge.Listening listening = nudge.listen(Nudge.work(agent.hostId().orElse(null)))) {
            while (asking.get(agent.id()) == mine) {
                Optional<Assignment> taken = board.take(agent, owners).flatMap(this::given);
                if (taken.isPresent()) {
                    return ResponseEntity.ok(taken.get());
                }
                long left = (until - System.nanoTime()) / 1_000_000;
                if (left <= 0 || nudge.isClosing()) {
                    break;
                }
                listening.await(Math.min(left, 2000));
            }
            return ResponseEntity.noContent().build();
        }
    }

    /** Work whose secrets cannot be opened fails at once, with that reason: no agent could ever have it. */
    private Optional<Assignment> given(WorkBoard.Taken taken) {
        try {
            return Optional.of(assignment(taken));
        } catch (Secrets.Unopened unopened) {
            LOG.error("work {} cannot be given out: {}", taken.work().id(), unopened.getMessage());
            board.end(taken.leaseToken(), new Lease.Result(taken.work().fence(), Lease.Outcome.FAILED,
                    String.valueOf(unopened.getMessage()), false), owners);
            return Optional.empty();
        }
    }

    private Assignment assignment(WorkBoard.Taken taken) {
        return Leases.complete(owners.of(taken.work()).assignment(taken.work()), taken.work(), taken.leaseToken(),
                settings.leaseSeconds());
    }
}

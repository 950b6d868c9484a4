package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Enrolment;
import dev.paseo.api.agent.WorkRequest;
import dev.paseo.service.agent.Agents.Enlisted;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import io.swagger.v3.oas.annotations.Hidden;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
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

    @PostMapping("/enrolment")
    Enrolment.Enrolled enrol(@RequestBody Enrolment enrolment) {
        if (enrolment.secret().length() < SHORTEST_SECRET) {
            throw Refusal.invalid("/secret", "an agent's secret has at least " + SHORTEST_SECRET + " signs");
        }
        return agents.enrol(enrolment.token(), enrolment.secret()).map(agent -> new Enrolment.Enrolled(agent.name()))
                .orElseThrow(() -> Refusal.signedOut("This enrolment token is unknown, used or older than an hour; ask for a new one."));
    }

    /** Waits for work; 204 where none came in time, or where the agent has asked again meanwhile. */
    @PostMapping("/work")
    ResponseEntity<Assignment> work(@RequestHeader("Authorization") String authorization, @RequestBody WorkRequest request,
            @RequestParam(defaultValue = "" + LONGEST_POLL_MILLIS) long waitMillis) throws InterruptedException {
        Enlisted known = agents.bySecret(authorization.replaceFirst("^Bearer ", ""))
                .orElseThrow(() -> Refusal.signedOut("This agent is not enrolled."));
        agents.heard(known);
        request.walls().ifPresent(walls -> agents.walled(known, walls, request.walled()));
        Enlisted agent = agents.byId(known.id());
        Optional<WorkBoard.Taken> lost = board.sendAgain(agent, request.held());
        if (lost.isPresent()) {
            return ResponseEntity.ok(assignment(lost.get()));
        }
        Object mine = new Object();
        asking.put(agent.id(), mine);
        long until = System.nanoTime() + Math.clamp(waitMillis, 0, LONGEST_POLL_MILLIS) * 1_000_000;
        try (Nudge.Listening listening = nudge.listen(Nudge.work(agent.hostId().orElse(null)))) {
            while (asking.get(agent.id()) == mine) {
                Optional<WorkBoard.Taken> taken = board.take(agent, owners);
                if (taken.isPresent()) {
                    return ResponseEntity.ok(assignment(taken.get()));
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

    private Assignment assignment(WorkBoard.Taken taken) {
        return Leases.complete(owners.of(taken.work()).assignment(taken.work()), taken.work(), taken.leaseToken(), settings.leaseSeconds());
    }
}

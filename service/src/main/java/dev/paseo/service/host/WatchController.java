package dev.paseo.service.host;

import dev.paseo.api.agent.Watch;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.problem.Refusal;
import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What agents are told to keep an eye on, and what they say of it, with their own secret. */
@Hidden
@RestController
@RequestMapping("/agent/v1/watch")
class WatchController {

    private final Agents agents;
    private final WatchedHosts hosts;
    private final HostWatch watch;

    WatchController(Agents agents, WatchedHosts hosts, HostWatch watch) {
        this.agents = agents;
        this.hosts = hosts;
        this.watch = watch;
    }

    private Agents.Agent agent(String authorization) {
        return agents.bySecret(authorization.replaceFirst("^Bearer ", ""))
                .orElseThrow(() -> Refusal.signedOut("No agent is enrolled with this token"));
    }

    /** What the agent is to check on its hosts while it is live there. */
    @GetMapping
    Watch.Watched watched(@RequestHeader("Authorization") String authorization) {
        Agents.Agent agent = agent(authorization);
        return hosts.watched(agent.id(), agent.hostId(), agents.renewal(agent));
    }

    /** Reports what checks of live hosts found. */
    @PostMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void report(@RequestHeader("Authorization") String authorization, @RequestBody Watch.Report report) {
        Agents.Agent agent = agent(authorization);
        agents.heard(agent);
        watch.report(agent.id(), agent.hostId(), report);
    }
}

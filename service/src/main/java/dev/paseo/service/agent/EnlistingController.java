package dev.paseo.service.agent;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/agents")
class EnlistingController {

    /**
     * {@code untrusted}: it is assigned to work of branches that are not trusted and to previews, once it says that its
     * walls hold them.
     */
    record Invitation(String name, Optional<String> host, Optional<List<String>> offers, Optional<Boolean> untrusted) {}

    /** The one-time token, shown this once; {@code lines} are shell commands that set the agent up with it. */
    record InvitationView(String name, String token, List<String> lines) {}

    /**
     * An agent; {@code working} is how many pieces of work it has now, {@code walls} what keeps its work to itself, in
     * words, {@code untrusted} whether it is assigned to work of branches that are not trusted, {@code walled} whether
     * its walls hold that.
     */
    record AgentView(String name, Optional<String> host, List<String> offers, boolean drained, int working,
            Optional<Instant> lastContact, boolean present,
            Optional<String> walls, boolean untrusted, boolean walled) {}

    private final Agents agents;
    private final AgentArchive archive;

    EnlistingController(Agents agents, AgentArchive archive) {
        this.agents = agents;
        this.archive = archive;
    }

    /** Makes a one-time token, good for an hour, with which a process becomes this agent. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    InvitationView invite(@AuthenticationPrincipal Person person, @RequestBody Invitation invitation) {
        Permission.require(person, Action.ENROL_AGENT);
        String token = agents.invite(invitation.name(), invitation.host(), invitation.offers().orElse(List.of()),
                invitation.untrusted().orElse(false), person.name());
        return new InvitationView(invitation.name(), token, archive.lines(invitation.name(), token));
    }

    /** Lists all agents: what they offer, their walls, and when each was heard of last. */
    @GetMapping
    List<AgentView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return agents.all().stream().map(this::view).toList();
    }

    /**
     * Lets an agent take a new secret, within a minute; what it works on goes on. After 90 days it does so by itself.
     */
    @PostMapping("/{name}/renewal")
    AgentView renew(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.ENROL_AGENT, "renew agents' secrets");
        return view(agents.wantRenewal(name, person.name()));
    }

    /** Lets an agent finish what it has and take nothing new. */
    @PutMapping("/{name}/drain")
    AgentView drain(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.ENROL_AGENT, "drain agents");
        return view(agents.drain(name, true, person.name()));
    }

    /** Lets a drained agent take work again. */
    @DeleteMapping("/{name}/drain")
    AgentView takesAgain(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.ENROL_AGENT, "bring agents back");
        return view(agents.drain(name, false, person.name()));
    }

    private AgentView view(Agents.Agent agent) {
        return new AgentView(agent.name(), agent.host(), agent.offers(), agent.drained(), agents.working(agent.id()),
                agent.lastContact(), agent.present(),
                agent.walls().words(), agent.walls().untrusted(), agent.walls().hold());
    }
}

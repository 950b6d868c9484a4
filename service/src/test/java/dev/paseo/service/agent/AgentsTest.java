package dev.paseo.service.agent;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class AgentsTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final AgentMapper mapper = database.mapper(AgentMapper.class);
    private final Agents agents = new Agents(mapper, noon.changes, mock(Nudge.class), database.json());
    private final String name = Rows.fresh("agent");
    private final String offer = Rows.fresh("offer");

    private String invite(boolean untrusted) {
        return agents.invite(name, Optional.empty(), List.of(offer), untrusted, "ines");
    }

    @Test
    void namesAndOffersAreWords() {
        for (String wrong : List.of("", "Build", "-a", "a b", "x".repeat(64))) {
            Refused.field("/name", () -> agents.invite(wrong, Optional.empty(), List.of(), false, "ines"));
            Refused.field("/offers", () -> agents.invite(name, Optional.empty(), List.of(wrong), false, "ines"));
        }
    }

    @Test
    void oneThatIsNotThereIsNotRenewed() {
        invite(false);
        Refused.by(Kind.NOT_FOUND, () -> agents.wantRenewal(name + "x", "ines"));
        assertTrue(Refused.by(Kind.NOT_FOUND, () -> agents.wantRenewal(name, "ines")).startsWith("There is no agent "
                + name), "it was invited, and has not come");
    }

    @Test
    void aSecretIsTheAgentsAgainWhereTheAnswerWasLost() {
        String invitation = invite(false);
        assertEquals(name, agents.enrol(invitation, "secret of " + name).orElseThrow().name());
        assertEquals(name, agents.enrol(invitation, "secret of " + name).orElseThrow().name());
        assertTrue(agents.enrol(invitation, "another secret").isEmpty());
    }

    private String waits(boolean untrusted) {
        return agents.waitsFor(List.of(offer), untrusted).replace(offer, "gpu").replace(name, "builder");
    }

    @Test
    void whatAStageWaitsForIsSaid() {
        assertEquals("waits for an agent that offers gpu: there is none", waits(false));
        String invitation = invite(true);
        assertEquals("waits for an agent that offers gpu: builder is away", waits(false));
        Agents.Agent agent = agents.enrol(invitation, "secret of " + name).orElseThrow();
        agents.heard(agent);
        assertEquals("waits for an agent that offers gpu: builder is busy", waits(false));
        assertEquals("waits for an agent that offers gpu and takes work of branches that are not trusted: "
                + "builder is assigned to it, but its walls do not hold it: it has not been heard of", waits(true));
        agents.walled(agent, "no user namespaces", false);
        assertTrue(waits(true).endsWith("its walls do not hold it: no user namespaces"));
        agents.drain(name, true, "ines");
        assertEquals("waits for an agent that offers gpu: builder is drained", waits(false));
    }
}

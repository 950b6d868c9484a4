package dev.paseo.service.agent;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.util.List;
import org.junit.jupiter.api.Test;

class AgentArchiveTest {

    private final Settings settings = mock(Settings.class);

    @Test
    void theLinesFetchCheckUnpackAndStart() {
        when(settings.address()).thenReturn("https://paseo.park.example");
        AgentArchive archive = new AgentArchive(settings, "/agent-archive-of-a-test");
        String digest = "486ea46224d1bb4fb680f34f7c9ad96a8f24ec88be73ea8e5a6c65260e9cb8a7";
        assertEquals(List.of(
                "curl -fsS -o paseo-agent.tar.gz https://paseo.park.example/agent/v1/archive/paseo-agent.tar.gz",
                "echo \"" + digest + "  paseo-agent.tar.gz\" | sha256sum -c -", "tar -xzf paseo-agent.tar.gz",
                "paseo-agent/bin/paseo-agent --service https://paseo.park.example --folder "
                        + "\"$HOME/paseo-agent-north-hut\" --enrol a-token"),
                archive.lines("north-hut", "a-token"));
    }

    @Test
    void aServiceThatWasBuiltWithoutItSaysSo() {
        assertEquals("This service was built without the agent's archive",
                Refused.by(Kind.NOT_FOUND, new AgentArchive(settings, "/no-such")::open));
    }
}

package dev.paseo.service.agent;

import dev.paseo.service.bytes.Digests;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.io.InputStream;
import java.util.List;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** The agent as an archive that the service gives out, and the lines that set one up with it. */
@Component
class AgentArchive {

    static final String NAME = "paseo-agent.tar.gz";
    static final String PATH = "/agent/v1/archive/" + NAME;

    private final Settings settings;
    private final String resource;
    private Optional<String> digest = Optional.empty();

    @Autowired
    AgentArchive(Settings settings) {
        this(settings, "/agent/" + NAME);
    }

    AgentArchive(Settings settings, String resource) {
        this.settings = settings;
        this.resource = resource;
    }

    InputStream open() {
        InputStream in = AgentArchive.class.getResourceAsStream(resource);
        if (in == null) {
            throw Refusal.notFound("This service was built without the agent's archive");
        }
        return in;
    }

    /** SHA-256 in hexadecimal. */
    synchronized String digest() {
        if (digest.isEmpty()) {
            digest = Optional.of(Digests.of("SHA-256", open()));
        }
        return digest.orElseThrow();
    }

    /** Shell commands that fetch the archive, check it, and start the agent of this token. */
    List<String> lines(String name, String token) {
        return List.of("curl -fsS -o " + NAME + " " + settings.address() + PATH,
                "echo \"" + digest() + "  " + NAME + "\" | sha256sum -c -",
                "tar -xzf " + NAME,
                "paseo-agent/bin/paseo-agent --service " + settings.address() + " --folder \"$HOME/paseo-agent-" + name
                        + "\" --enrol " + token);
    }
}

package dev.paseo.agent;

import dev.paseo.agent.lease.LeaseClient;
import java.net.URI;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The agent's process. */
@Command(name = "paseo-agent", mixinStandardHelpOptions = true, version = "0.1.0",
        description = "Takes work from a Paseo service and carries it out on this machine.",
        footer = {"", "Example:", "  paseo-agent --service http://127.0.0.1:7600 --folder /var/lib/paseo-agent --enrol TOKEN"})
public final class AgentCommand implements Callable<Integer> {

    @Option(names = "--service", required = true, description = "address of the service")
    private URI service = URI.create("http://127.0.0.1:7600");

    @Option(names = "--folder", required = true, description = "the agent's own folder: its secret and the spools of its work")
    private Path folder = Path.of(".");

    @Option(names = "--host-folder", description = "where recipes keep what they install; default: HOST below the agent's folder")
    private Optional<Path> hostFolder = Optional.empty();

    @Option(names = "--enrol", description = "one-time token; needed only the first time")
    private Optional<String> token = Optional.empty();

    @Option(names = "--capacity", defaultValue = "4", description = "pieces of work at once, from 1; default: ${DEFAULT-VALUE}")
    private int capacity = 4;

    @Option(names = "--allow-root", description = "run although the user is root; steps then run as root as well")
    private boolean allowRoot;

    @Override
    public Integer call() throws Exception {
        if ("root".equals(System.getProperty("user.name")) && !allowRoot) {
            System.err.println("error: this is root, and steps would run as root; use a user of the agent's own, or --allow-root");
            return 2;
        }
        try (Agent agent = new Agent(service, folder, hostFolder.orElse(folder.resolve("host")), Math.max(1, capacity))) {
            if (!agent.isEnrolled()) {
                if (token.isEmpty()) {
                    System.err.println("error: this agent is not enrolled; get a one-time token with `paseo agent enrol` and pass it as --enrol");
                    return 2;
                }
                try {
                    agent.enrol(token.get());
                } catch (LeaseClient.Refused refused) {
                    System.err.println("error: " + refused.getMessage());
                    return 1;
                }
            }
            agent.run();
        }
        return 0;
    }

    public static void main(String[] arguments) {
        System.exit(new CommandLine(new AgentCommand()).execute(arguments));
    }
}

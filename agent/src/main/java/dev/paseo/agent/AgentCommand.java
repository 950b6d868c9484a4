package dev.paseo.agent;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Walls;
import java.net.URI;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The agent's process. */
@Command(name = "paseo-agent", mixinStandardHelpOptions = true, version = "0.1.0",
        description = "Takes work from a Paseo service and carries it out on this machine.",
        footer = {"", "Example:",
                "  paseo-agent --service http://127.0.0.1:7600 --folder /var/lib/paseo-agent --enrol TOKEN"})
public final class AgentCommand implements Callable<Integer> {

    @Option(names = "--service", required = true, description = "address of the service")
    private URI service = URI.create("http://127.0.0.1:7600");

    @Option(names = "--folder", required = true,
            description = "the agent's own folder: its secret and the spools of its work")
    private Path folder = Path.of(".");

    @Option(names = "--host-folder",
            description = "where recipes keep what they install; default: HOST below the agent's folder")
    private Optional<Path> hostFolder = Optional.empty();

    @Option(names = "--enrol", description = "one-time token; needed only the first time")
    private Optional<String> token = Optional.empty();

    @Option(names = "--capacity", defaultValue = "4",
            description = "pieces of work at once, from 1; default: ${DEFAULT-VALUE}")
    private int capacity = 4;

    @Option(names = "--share", paramLabel = "FOLDER",
            description = "stages of trusted branches may read and write it beside their own files, such as a cache; "
                    + "may be given more than once")
    private List<Path> shared = new ArrayList<>();

    @Option(names = "--readable", paramLabel = "FOLDER",
            description = "steps may read it although homes are hidden from them, such as tools; may be given more "
                    + "than once")
    private List<Path> readable = new ArrayList<>();

    @Option(names = "--without-network", description = "the steps of stages, and recipes of previews, reach no network")
    private boolean withoutNetwork;

    @Option(names = "--with-sudo",
            description = "recipes of trusted versions may become other users, which no walled process can: they "
                    + "have no walls")
    private boolean withSudo;

    @Option(names = "--without-walls",
            description = "steps run as any process of the agent's user, and reach whatever it reaches")
    private boolean withoutWalls;

    @Option(names = "--most-memory", paramLabel = "MB",
            description = "megabytes that the processes of one step may use together, from 16; default: nine tenths "
                    + "of the machine's")
    private Optional<Long> memory = Optional.empty();

    @Option(names = "--most-processes", paramLabel = "N", defaultValue = "" + Limits.MOST_PROCESSES,
            description = "processes that one step may have at once, from 10; default: ${DEFAULT-VALUE}")
    private int processes = Limits.MOST_PROCESSES;

    @Option(names = "--allow-root", description = "run although the user is root; steps then run as root as well")
    private boolean allowRoot;

    @Override
    public Integer call() throws Exception {
        if ("root".equals(System.getProperty("user.name")) && !allowRoot) {
            System.err.println(
                    "error: this is root, and steps would run as root; use a user of the agent's own, or --allow-root");
            return 2;
        }
        try (Agent agent = new Agent(service, folder, hostFolder.orElse(folder.resolve("host")), options())) {
            System.out.println("walls: " + agent.walls());
            if (!agent.isEnrolled()) {
                if (token.isEmpty()) {
                    System.err.println(
                            "error: this agent is not enrolled; get a one-time token with `paseo agent enrol` and "
                                    + "pass it as --enrol");
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

    private Agent.Options options() {
        Limits usual = Limits.usual();
        return new Agent.Options(Math.max(1, capacity),
                new Walls.WallSettings(!withoutWalls, absolute(shared), absolute(readable), !withoutNetwork, withSudo),
                new Limits(usual.output(),
                        memory.map(megabytes -> Math.max(16, megabytes) << 20).orElse(usual.memory()),
                        Math.max(10, processes)));
    }

    private static List<Path> absolute(List<Path> folders) {
        return folders.stream().map(Path::toAbsolutePath).map(Path::normalize).toList();
    }

    public static void main(String[] arguments) {
        System.exit(new CommandLine(new AgentCommand()).execute(arguments));
    }
}

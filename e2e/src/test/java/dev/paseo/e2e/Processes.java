package dev.paseo.e2e;

import java.io.File;
import java.io.IOException;
import java.net.BindException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ThreadLocalRandom;

/** The service and the agents as processes of their own, so that they can be killed. */
final class Processes implements AutoCloseable {

    private static final String JAVA = Path.of(System.getProperty("java.home"), "bin", "java").toString();

    private final Park park;
    private final List<Process> all = new ArrayList<>();

    Processes(Park park) {
        this.park = park;
    }

    /** Below those that the system hands to whoever wants any: nobody is given it before it is used. */
    static int freePort() throws IOException {
        while (true) {
            int port = ThreadLocalRandom.current().nextInt(15_000, 32_000);
            try (ServerSocket free = new ServerSocket(port)) {
                return free.getLocalPort();
            } catch (BindException taken) {
                // Another one then.
            }
        }
    }

    /** Starts a service and waits until it is ready. */
    Process service(int port, String... options) throws IOException {
        Path file = park.folder.resolve("service-" + port + ".properties");
        List<String> settings = new ArrayList<>(park.settings());
        settings.add("server.port=" + port);
        Files.write(file, settings);
        List<String> arguments = new ArrayList<>(List.of(options));
        arguments.addAll(List.of("-XX:TieredStopAtLevel=1", "-cp", classpath(), "dev.paseo.service.App",
                "--spring.config.additional-location=file:" + file));
        Process process = start("service-" + port, arguments);
        Client nobody = new Client("http://127.0.0.1:" + port, "");
        Await.until("the service on " + port + " is ready", () -> nobody.get("/actuator/health").status() == 200);
        return process;
    }

    /** Starts an agent; enrolled at its first start. */
    Process agent(String name) throws IOException {
        Path folder = park.folder.resolve("agents").resolve(name);
        List<String> command = new ArrayList<>(
                List.of("-Xmx96m", "-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1", "-cp", classpath(),
                        "dev.paseo.agent.AgentCommand", "--allow-root", "--service", park.address(), "--folder",
                        folder.toString(),
                        "--host-folder", park.hostFolder(name).toString(), "--share", park.folder.toString()));
        if (!Files.exists(folder.resolve("secret"))) {
            command.addAll(List.of("--enrol", park.invite(name)));
        }
        return start("agent-" + name, command);
    }

    private Process start(String name, List<String> arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of(JAVA));
        command.addAll(arguments);
        File log = park.folder.resolve(name + ".log").toFile();
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log));
        builder.environment().putAll(Map.of("MARKERS", park.folder.resolve("markers").toString()));
        Process process = builder.start();
        all.add(process);
        return process;
    }

    private static String classpath() {
        return System.getProperty("java.class.path");
    }

    static void kill(Process process) throws InterruptedException {
        process.destroyForcibly();
        process.waitFor();
    }

    @Override
    public void close() {
        all.forEach(Process::destroyForcibly);
    }
}

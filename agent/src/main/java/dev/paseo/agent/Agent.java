package dev.paseo.agent;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.lease.ServiceClient;
import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.Walls;
import dev.paseo.agent.work.Machine;
import dev.paseo.agent.work.Sources;
import dev.paseo.agent.watch.Watcher;
import dev.paseo.agent.work.Work;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.WorkRequest;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Asks for work while it has room, and goes on with what an earlier life of it left. */
public final class Agent implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Agent.class);

    private final ServiceClient service;
    private final Path folder;
    private final Semaphore room;
    private final Machine machine;
    private final Set<Long> held = ConcurrentHashMap.newKeySet();
    /** How many works of an earlier life are not known yet to go on, or to be over. */
    private final AtomicInteger unsettled = new AtomicInteger();
    private volatile String secret = "";
    private volatile boolean closing;
    private volatile Thread asking = Thread.currentThread();
    private volatile Optional<Thread> watching = Optional.empty();
    private final Path hostFolder;

    /**
     * @param folder     its own: its secret, and the spools of its work
     * @param hostFolder where recipes keep what they install; told to them as PASEO_HOST_FOLDER
     */
    public Agent(URI service, Path folder, Path hostFolder, Options options) throws IOException, InterruptedException {
        this.service = new ServiceClient(service);
        this.folder = Files.createDirectories(folder.toAbsolutePath());
        this.room = new Semaphore(options.capacity());
        this.hostFolder = Files.createDirectories(hostFolder.toAbsolutePath());
        Walls walls = Walls.find(this.folder, this.hostFolder, options.walls());
        this.machine = new Machine(variables(this.hostFolder), new Sources(this.folder.resolve("sources")), walls,
                options.limits());
    }

    /**
     * What the administrator of this machine has said.
     *
     * @param capacity how many pieces of work it carries out at once
     */
    public record Options(int capacity, Walls.WallSettings walls, Limits limits) {

        public static Options usual(int capacity) {
            return new Options(capacity, Walls.WallSettings.usual(), Limits.usual());
        }
    }

    /** Which walls its work has, in words. */
    public String walls() {
        return machine.walls().words();
    }

    private static Map<String, String> variables(Path hostFolder) {
        Map<String, String> variables = new HashMap<>();
        for (String name : new String[]{"PATH", "HOME", "LANG", "TZ", "JAVA_HOME"}) {
            Optional.ofNullable(System.getenv(name)).ifPresent(value -> variables.put(name, value));
        }
        variables.put("PASEO_HOST_FOLDER", hostFolder.toString());
        return variables;
    }

    /**
     * Becomes an agent of the service with a one-time token. Its secret is kept in its folder before it asks, so that
     * it can ask again, in this life or the next, when the service was away or its answer was lost.
     */
    public void enrol(String token) throws IOException, InterruptedException {
        Path asking = folder.resolve("secret.asking");
        if (!Files.exists(asking)) {
            byte[] random = new byte[32];
            new SecureRandom().nextBytes(random);
            Path fresh = Files.createTempFile(folder, "secret", "",
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(fresh, "paseo-agent_" + Base64.getUrlEncoder().withoutPadding().encodeToString(random));
            Files.move(fresh, asking, StandardCopyOption.ATOMIC_MOVE);
        }
        String secret = Files.readString(asking);
        Patience.insist(() -> service.enrol(token, secret));
        Files.move(asking, folder.resolve("secret"), StandardCopyOption.ATOMIC_MOVE);
        this.secret = secret;
    }

    private void renew(String token) throws IOException, InterruptedException {
        enrol(token);
        LOG.info("this agent has a new secret");
    }

    public boolean isEnrolled() {
        return Files.exists(folder.resolve("secret"));
    }

    /** Works until it is closed. */
    public void run() throws IOException, InterruptedException {
        asking = Thread.currentThread();
        secret = Files.readString(folder.resolve("secret")).strip();
        for (Spool left : Spool.left(folder.resolve("spool"))) {
            adopt(left);
        }
        watching = Optional.of(Thread.ofPlatform().daemon().name("watching")
                .start(new Watcher(service, () -> secret, this::renew, hostFolder, () -> unsettled.get() == 0)));
        while (!closing) {
            room.acquire();
            Optional<Assignment> work = Optional.empty();
            try {
                work = service.work(secret,
                        new WorkRequest(List.copyOf(held), Optional.of(walls()), Optional.of(machine.walls().areUp())));
            } catch (IOException away) {
                LOG.info("the service is away: {}", away.getMessage());
                Thread.sleep(500);
            } finally {
                if (work.isEmpty()) {
                    room.release();
                }
            }
            if (work.isPresent()) {
                begin(work.get());
            }
        }
    }

    private void begin(Assignment work) throws IOException {
        LOG.info("work {}: {}", work.work(), work.kind());
        Spool spool = Spool.open(folder.resolve("spool"), work.work());
        spool.keepLease(work.leaseToken());
        held.add(work.work());
        carryOut(work, spool);
    }

    private void adopt(Spool left) throws IOException, InterruptedException {
        Optional<String> token = left.lease();
        if (token.isEmpty()) {
            left.delete();
            return;
        }
        room.acquire();
        held.add(left.work());
        unsettled.incrementAndGet();
        Thread.ofPlatform().daemon().name("adopting").start(() -> {
            boolean goesOn = false;
            try {
                LeaseClient lease = service.lease(token.get());
                Assignment work = Patience.insist(lease::again);
                goesOn = true;
                unsettled.decrementAndGet();
                LOG.info("going on with work {}", work.work());
                new Work(work, lease, left, machine).carryOut();
            } catch (LeaseClient.LeaseOver over) {
                LOG.warn("the lease of {} ended while this agent was away: the work is dropped",
                        left.folder().getFileName());
                endAndDelete(left);
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            } catch (IOException | RuntimeException failed) {
                LOG.error("{} cannot be continued", left.folder(), failed);
            } finally {
                if (!goesOn) {
                    unsettled.decrementAndGet();
                }
                held.remove(left.work());
                room.release();
            }
        });
    }

    private static void endAndDelete(Spool left) {
        try {
            left.endProcesses();
            left.delete();
        } catch (IOException | InterruptedException failed) {
            LOG.error("{} cannot be cleaned up", left.folder(), failed);
        }
    }

    private void carryOut(Assignment work, Spool spool) {
        Thread.ofPlatform().daemon().name("work-" + work.work()).start(() -> {
            try {
                new Work(work, service.lease(work.leaseToken()), spool, machine).carryOut();
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            } catch (IOException | RuntimeException failed) {
                LOG.error("work {} cannot be carried out; its lease will run out", work.work(), failed);
            } finally {
                held.remove(work.work());
                room.release();
            }
        });
    }

    @Override
    public void close() {
        closing = true;
        asking.interrupt();
        watching.ifPresent(Thread::interrupt);
    }
}

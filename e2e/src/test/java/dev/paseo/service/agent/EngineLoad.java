package dev.paseo.service.agent;

import dev.paseo.api.agent.Lease;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.context.ApplicationContext;

/** Agents that do nothing but take and end stages, called as the agents' protocol calls them, without HTTP between. */
public final class EngineLoad {

    private final WorkBoard board;
    private final Owners owners;
    private final Agents agents;

    public EngineLoad(ApplicationContext service) {
        this.board = service.getBean(WorkBoard.class);
        this.owners = service.getBean(Owners.class);
        this.agents = service.getBean(Agents.class);
    }

    private Agents.Agent agent(String name) {
        return agents.all().stream().filter(each -> each.name().equals(name)).findFirst().orElseThrow();
    }

    /** A stage that an agent has. */
    public record Held(String token, long fence) {}

    public Optional<Held> take(String agent) {
        return board.take(agent(agent), owners).map(taken -> new Held(taken.leaseToken(), taken.work().fence()));
    }

    public void end(Held held) {
        if (!board.end(held.token(), new Lease.Result(held.fence(), Lease.Outcome.PASSED, "", true), owners)) {
            throw new IllegalStateException("the result was refused");
        }
    }

    /**
     * Takes and ends this many stages, one thread for each agent; each is two transitions. Returns the seconds that the
     * second half took.
     */
    public double run(List<String> names, int stages) throws InterruptedException {
        AtomicInteger done = new AtomicInteger();
        long[] half = new long[1];
        try (ExecutorService threads = Executors.newFixedThreadPool(names.size())) {
            for (String name : names) {
                Agents.Agent agent = agent(name);
                threads.submit(() -> work(agent, done, stages, half));
            }
        }
        return (System.nanoTime() - half[0]) / 1e9;
    }

    private void work(Agents.Agent agent, AtomicInteger done, int stages, long[] half) {
        while (done.get() < stages) {
            board.take(agent, owners).ifPresentOrElse(taken -> {
                end(new Held(taken.leaseToken(), taken.work().fence()));
                if (done.incrementAndGet() == stages / 2) {
                    half[0] = System.nanoTime();
                }
            }, Thread::onSpinWait);
        }
    }
}

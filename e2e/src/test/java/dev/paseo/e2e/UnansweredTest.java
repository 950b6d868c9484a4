package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * A mail server, git servers, a receiver and desks that are asked take connections and never answer: nobody else waits
 * for them.
 */
class UnansweredTest {

    private static final int LEASE_SECONDS = 8;
    private static final Duration WATCHED = Duration.ofSeconds(60);
    /** A starved machine is slow by itself; what waited for somebody silent would wait for twenty seconds and more. */
    private static final Duration SLOW = Duration.ofSeconds(6);

    @Test
    void whoeverNeverAnswersHoldsUpNobodyElse() throws Exception {
        try (GitServers servers = new GitServers(Files.createTempDirectory("paseo-silent"))) {
            URI silent = URI.create(servers.silent());
            String web = "http://127.0.0.1:" + silent.getPort();
            try (Park park = Park.open("--paseo.poll=1s", "--paseo.lease-seconds=" + LEASE_SECONDS,
                    "--spring.mail.host=127.0.0.1", "--spring.mail.port=" + silent.getPort(),
                    "--paseo.allowed-receivers=" + web)) {
                Repository repository = park.component();
                mute(park, repository, silent, web);
                watch(park, repository, leaving(park));
            }
        }
    }

    /** From here on five repositories, the mail server, a receiver and nine desks at a gate are silent. */
    private static void mute(Park park, Repository repository, URI silent, String web) throws Exception {
        repository.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        String desks = IntStream.range(0, 9).mapToObj(desk -> "desk-" + desk + ": {url: \"" + web + "/\"}")
                .collect(Collectors.joining(", ", "      outside: {", "}\n"));
        String gate = "    to-enter:\n";
        String text = Scenario.environments(park::hostAddress);
        park.as("admin")
                .put("/api/v1/environments", Map.of("text", text.replace(gate + "      approvals: {from: approvers",
                        gate + desks + "      approvals: {from: approvers")))
                .good();
        for (int desk = 0; desk < 9; desk++) {
            park.as("admin").post("/api/v1/environments/production/outside/desk-" + desk + "/secret", Map.of()).good();
        }
        park.as("admin").post("/api/v1/receivers", Map.of("name", "silent-log", "address", web + "/")).good();
        for (int each = 0; each < 5; each++) {
            park.bring("mute-" + each, Map.of());
            park.database.as("update component set repository = '" + silent + "/mute-" + each
                    + ".git' where name = 'mute-" + each + "'");
        }
        park.promote("1.4.1", "production");
    }

    /** An agent that takes work and is never heard of again. */
    private static Client leaving(Park park) throws IOException, InterruptedException {
        String secret = "gone-" + "x".repeat(40);
        new Client(park.address(), "")
                .post("/agent/v1/enrolment", Map.of("token", park.invite("gone", "gone"), "secret", secret)).good();
        Repository left = park.bring("left", Map.of());
        left.push("developer", "main", Map.of("paseo.yaml", """
                paseo: 1
                component: left
                versions: "1.{serial}"
                starts: [{push: [main]}]
                stages:
                  make: {wants: [gone], steps: ['true'], keep: {app: out/app}}
                """));
        return new Client(park.address(), secret);
    }

    /** What was seen of the service in the meantime, in milliseconds. */
    private record Seen(long behind, long leaseEnded) {}

    private static void watch(Park park, Repository repository, Client agent) throws Exception {
        work(agent);
        long began = System.nanoTime();
        AtomicBoolean over = new AtomicBoolean();
        List<Long> pushes = new ArrayList<>();
        Seen seen;
        try (ExecutorService beside = Executors.newSingleThreadExecutor()) {
            Future<Seen> looking = beside.submit(() -> look(park, over));
            try {
                for (int run = 2; System.nanoTime() - began < WATCHED.toNanos(); run++) {
                    long at = System.nanoTime();
                    repository.push("developer", "main", Map.of("health", "ok " + run));
                    park.runEnds("daylight-api", run);
                    pushes.add((System.nanoTime() - at) / 1_000_000);
                    park.liveIn("staging", "1.4." + run);
                }
            } finally {
                over.set(true);
            }
            seen = looking.get();
        }
        Collections.sort(pushes);
        System.out.println("beside those who never answer: the trail is " + seen.behind
                + " ms behind at most, a lease of " + LEASE_SECONDS + " s ends after " + seen.leaseEnded
                + " ms, each of " + pushes.size() + " pushes has built after " + pushes.getLast() + " ms at most, "
                + pushes.get(pushes.size() / 2) + " at p50");
        assertTrue(seen.behind < SLOW.toMillis(), () -> "the trail stood still: " + seen);
        assertTrue(seen.leaseEnded > 0 && seen.leaseEnded < LEASE_SECONDS * 1000L + SLOW.toMillis(),
                () -> "a lease ends late: " + seen);
        assertTrue(pushes.getLast() < SLOW.toMillis() * 2, () -> "pushes wait: " + pushes);
        String mails = park.database.as("select count(*) from notice where mailed_at is null and tries > 0").strip();
        // Asked of the rows: the newest fifty messages may all be younger than the time after which one is given up.
        String messages = park.database.as("select count(*) from outgoing_attempt where error is not null").strip();
        assertTrue(!mails.equals("0") && !messages.equals("0"),
                "they are really silent: " + mails + " mails, " + messages + " messages");
    }

    private static Seen look(Park park, AtomicBoolean over) throws IOException, InterruptedException {
        long began = System.nanoTime();
        long behind = 0;
        long ended = 0;
        while (!over.get()) {
            behind = Math.max(behind, Long.parseLong(park.database.as("select coalesce(max(timestampdiff(microsecond, "
                    + "replace(replace(json_value(e.body, '$.at'), 'T', ' '), 'Z', ''), utc_timestamp(6))), 0) div "
                    + "1000 from audit_pending p join audit_entry e on e.id = p.entry_id")
                    .strip()));
            if (ended == 0 && park.run("left", 1).path("stages").path(0).path("reason").asString("")
                    .contains("its agent was not heard of for")) {
                ended = (System.nanoTime() - began) / 1_000_000;
            }
        }
        return new Seen(behind, ended);
    }

    private static JsonNode work(Client agent) {
        JsonNode[] work = new JsonNode[1];
        Await.until("work is there", () -> {
            work[0] = agent.post("/agent/v1/work?waitMillis=500", Map.of("held", List.of())).body();
            return work[0].has("leaseToken");
        });
        return work[0];
    }
}

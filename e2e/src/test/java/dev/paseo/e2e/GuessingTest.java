package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Somebody guesses passwords. */
class GuessingTest {

    private static Client.Answer signIn(Park park, String name, String password) {
        return new Client(park.address(), "").post("/api/v1/tokens",
                Map.of("name", name, "password", password, "description", "test"));
    }

    /**
     * A thousand tries, as fast as they go: few are worked out, the others are told when to come again, and everybody
     * else is answered.
     */
    @Test
    void guessingWaitsAndHoldsUpNobody() throws Exception {
        try (Park park = new Park().hashingStrongly()) {
            park.startService();
            park.accounts();
            warm(park);
            guess(park);
        }
    }

    /** It has been running for a while, as a service has that somebody attacks. */
    private static void warm(Park park) {
        for (int time = 0; time < 500; time++) {
            park.as("auditor").get("/api/v1/components").good();
        }
    }

    private static void guess(Park park) throws Exception {
        Thread[] guessers = new Thread[20];
        int[][] statuses = new int[guessers.length][50];
        for (int at = 0; at < guessers.length; at++) {
            int[] mine = statuses[at];
            String victim = "approver-" + (1 + at % 2);
            guessers[at] = Thread.ofVirtual().start(() -> {
                for (int guess = 0; guess < mine.length; guess++) {
                    mine[guess] = signIn(park, victim, "guess-number-" + guess).status();
                }
            });
        }
        List<Long> times = new ArrayList<>();
        boolean guessing = true;
        while (guessing) {
            long began = System.nanoTime();
            park.as("auditor").get("/api/v1/components").good();
            times.add((System.nanoTime() - began) / 1_000_000);
            guessing = Arrays.stream(guessers).anyMatch(Thread::isAlive);
        }
        Map<Integer, Long> answers = Arrays.stream(statuses).flatMapToInt(Arrays::stream).boxed()
                .collect(Collectors.groupingBy(status -> status, TreeMap::new, Collectors.counting()));
        assertEquals(Set.of(401, 429), answers.keySet(), answers::toString);
        assertTrue(answers.get(401) < 60, answers::toString);
        Collections.sort(times);
        System.out.println("1,000 guesses: " + answers + "; answers to somebody else took "
                + times.get(times.size() / 2) + " ms at p50, " + times.get(times.size() * 99 / 100) + " ms at p99, "
                + times.getLast() + " ms at most");
        assertTrue(times.get(times.size() / 2) < 100, "somebody waited for " + times);
        Client.Answer told = signIn(park, "approver-1", Park.PASSWORD);
        assertTrue(told.status() == 429 && told.detail().startsWith("Too many failed tries to sign in as approver-1"),
                told::detail);
        assertTrue(park.as("auditor").get("/api/v1/audit?limit=100").good().toString().contains("failed to sign in"));
    }
}

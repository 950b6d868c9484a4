package dev.paseo.agent.check;

import dev.paseo.agent.process.StepProcess.StopSignal;
import dev.paseo.api.agent.Assignment;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.util.List;
import java.util.Optional;

/**
 * Asks until the answer is as it should be, or the time is over. Commands are left to the caller, who knows where they
 * run.
 */
public final class Checks {

    private static final int CONNECT_MILLIS = 3000;
    private static final int PAUSE_MILLIS = 200;
    /** While watching: so many failures in a row, a second apart, are a failure. */
    private static final int FAILURES = 3;

    private final HttpAsking http = new HttpAsking();

    /** Why it does not answer as it should; empty where it does. */
    public Optional<String> check(Assignment.Check check, StopSignal stop) throws InterruptedException {
        long until = System.nanoTime() + check.withinMillis() * 1_000_000;
        while (true) {
            Optional<String> wrong = once(check);
            if (wrong.isEmpty() || System.nanoTime() > until || stop.wanted()) {
                return wrong.map(why -> why + ", for " + check.withinMillis() / 1000 + " s");
            }
            Thread.sleep(PAUSE_MILLIS);
        }
    }

    /** Asks all of them again and again until then, a second apart; why one failed three times in a row. */
    public Optional<String> watch(List<Assignment.Check> checks, long until, StopSignal stop)
            throws InterruptedException {
        int[] failures = new int[checks.size()];
        while (System.nanoTime() < until && !stop.wanted()) {
            for (int at = 0; at < checks.size(); at++) {
                Optional<String> wrong = once(checks.get(at));
                failures[at] = wrong.isPresent() ? failures[at] + 1 : 0;
                if (failures[at] >= FAILURES) {
                    return wrong.map(why -> why + ", " + FAILURES + " times in a row");
                }
            }
            Thread.sleep(1000);
        }
        return Optional.empty();
    }

    /** Asks once. */
    public Optional<String> once(Assignment.Check check) throws InterruptedException {
        return switch (check.kind()) {
            case HTTP -> http.ask(check).map(why -> check.target() + " " + why);
            case METRIC -> http.text(check.target())
                    .flatMap(answer -> answer.problem().or(() -> number(check, answer.body())))
                    .map(why -> check.target() + " " + why);
            case PORT -> port(check.target());
            case COMMAND -> throw new IllegalArgumentException("a command is run by the caller");
        };
    }

    private static Optional<String> port(String target) {
        int colon = target.lastIndexOf(':');
        try (Socket socket = new Socket()) {
            socket.connect(new InetSocketAddress(target.substring(0, Math.max(0, colon)),
                    Integer.parseInt(target.substring(colon + 1))), CONNECT_MILLIS);
            return Optional.empty();
        } catch (IOException | IllegalArgumentException refused) {
            return Optional.of(target + " takes no connection: "
                    + Optional.ofNullable(refused.getMessage()).orElse(refused.getClass().getSimpleName()));
        }
    }

    /** A line of the Prometheus text format: the name with its labels, the number, perhaps a time. */
    private static Optional<String> number(Assignment.Check check, String body) {
        Assignment.Limits limits = check.limits().orElseThrow();
        Optional<Double> found = body.lines()
                .filter(line -> line.startsWith(limits.name()) && line.length() > limits.name().length()
                        && Character.isWhitespace(line.charAt(limits.name().length())))
                .map(line -> line.substring(limits.name().length()).strip().split("\\s+")[0])
                .flatMap(text -> parsed(text).stream()).findFirst();
        if (found.isEmpty()) {
            return Optional.of("tells no " + limits.name());
        }
        double number = found.get();
        Optional<String> low = limits.atLeast().filter(least -> !(number >= least))
                .map(least -> "tells " + limits.name() + " " + number + ", less than " + least);
        return low.or(() -> limits.atMost().filter(most -> !(number <= most))
                .map(most -> "tells " + limits.name() + " " + number + ", more than " + most));
    }

    private static Optional<Double> parsed(String text) {
        try {
            return Optional.of(Double.parseDouble(text));
        } catch (NumberFormatException none) {
            return Optional.empty();
        }
    }
}

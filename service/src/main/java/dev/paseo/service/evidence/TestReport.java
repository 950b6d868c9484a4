package dev.paseo.service.evidence;

import dev.paseo.core.evidence.TestSummary.Failure;
import dev.paseo.core.evidence.TestSummary.Timed;
import dev.paseo.core.evidence.TestSummary;
import dev.paseo.core.text.Shortened;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;
import javax.xml.stream.XMLStreamReader;

/** Reads JUnit XML, any number of files; keeps counts, the failures with their output, and the slowest. */
final class TestReport implements Xml.Handler {

    static final int MOST_FAILURES = 1000;
    private static final int MOST_SLOWEST = 20;
    private static final int LONGEST_NAME = 400;
    private static final int LONGEST_MESSAGE = 500;
    private static final int LONGEST_OUTPUT = 4000;

    private final Set<String> failedBefore;
    private final List<Failure> failures = new ArrayList<>();
    private final Set<String> mended = new HashSet<>();
    private final PriorityQueue<Timed> slowest = new PriorityQueue<>(Comparator.comparingDouble(Timed::seconds));
    private long total;
    private long failed;
    private long skipped;
    private double seconds;
    private boolean suites;

    private String name = "";
    private double took;
    private boolean isSkipped;
    private Optional<String> message = Optional.empty();
    private final StringBuilder output = new StringBuilder();

    /** @param failedBefore the tests that failed in the run before, to see which of them passed now */
    TestReport(Set<String> failedBefore) {
        this.failedBefore = failedBefore;
    }

    @Override
    public boolean takesDoctype() {
        return false;
    }

    @Override
    public void opens(Deque<String> path, XMLStreamReader element) {
        switch (path.peekLast()) {
            case "testcase" -> {
                String suite = Xml.attribute(element, "classname").filter(text -> !text.isBlank())
                        .map(text -> text + ".").orElse("");
                name = Shortened.to(suite + Xml.attribute(element, "name").orElse("unnamed"), LONGEST_NAME);
                took = Xml.number(element, "time");
                isSkipped = false;
                message = Optional.empty();
                output.setLength(0);
            }
            case "failure", "error" -> message = Optional
                    .of(message.orElse(Shortened.to(Xml.attribute(element, "message").orElse(""), LONGEST_MESSAGE)));
            case "skipped" -> isSkipped = true;
            case "testsuite", "testsuites" -> suites = true;
            default -> {}
        }
        if (path.size() == 1 && !suites) {
            throw new UnreadableReport("is <" + path.peekLast() + ">, not JUnit XML: <testsuite> or <testsuites>");
        }
    }

    @Override
    public void text(Deque<String> path, String text) {
        String within = path.isEmpty() ? "" : path.peekLast();
        if ((within.equals("failure") || within.equals("error")) && output.length() < LONGEST_OUTPUT) {
            output.append(text, 0, Math.min(text.length(), LONGEST_OUTPUT - output.length()));
        }
    }

    @Override
    public void closes(Deque<String> path) {
        if (!path.peekLast().equals("testcase")) {
            return;
        }
        total++;
        seconds += took;
        slowest.add(new Timed(name, took));
        if (slowest.size() > MOST_SLOWEST) {
            slowest.poll();
        }
        if (message.isPresent()) {
            failed++;
            if (failures.size() < MOST_FAILURES) {
                failures.add(new Failure(name, message.get(), output.toString().strip(), Optional.of(took)));
            }
        } else if (isSkipped) {
            skipped++;
        } else if (failedBefore.contains(name)) {
            mended.add(name);
        }
    }

    TestSummary summary() {
        return new TestSummary(total, total - failed - skipped, failed, skipped, seconds, failures,
                slowest.stream().sorted(Comparator.comparingDouble(Timed::seconds).reversed()).toList(),
                mended.stream().sorted().toList());
    }
}

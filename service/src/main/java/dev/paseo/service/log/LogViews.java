package dev.paseo.service.log;

import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The log of a piece of work as it is shown: of a stage, or of a deployment's task on a host. */
@Component
public class LogViews {

    private static final int MOST = 10_000;
    private static final int PAGE = 5000;
    private static final int LONGEST_WAIT_MILLIS = 20_000;

    public record LogLineView(long number, long millis, int step, String text) {}

    /** Lines of one step that stand together; of step 0 the agent's own words. */
    public record SpanView(int step, long first, long last) {}

    /**
     * Lines of a log.
     *
     * @param next    the number to ask from next
     * @param total   how many lines there are so far
     * @param outline which lines are of which step
     */
    public record LogView(List<LogLineView> lines, long next, long total, boolean ended, List<SpanView> outline) {}

    /** Where a text stands in a log: the first lines that have it, and how many have it in all. */
    public record FoundView(List<Long> lines, long total) {}

    /** Where a log is; empty where nobody took the work yet. */
    public record Logged(Optional<Long> work, boolean ended) {}

    /**
     * Which lines are wanted.
     *
     * @param from       the number of the first, from 1
     * @param limit      at most so many, 1 to 10000
     * @param waitMillis how long to wait for the next one where there is none yet, at most 20000
     * @param newest     the last {@code limit} of them
     */
    public record Wanted(long from, int limit, long waitMillis, boolean newest) {}

    private final Logs logs;

    LogViews(Logs logs) {
        this.logs = logs;
    }

    public LogView view(Logged found, Wanted wanted) throws InterruptedException {
        if (found.work().isEmpty()) {
            return new LogView(List.of(), wanted.from(), 0, found.ended(), List.of());
        }
        long work = found.work().get();
        int most = Math.clamp(wanted.limit(), 1, MOST);
        List<Logs.Line> lines = logs.await(work, wanted.from(), wanted.newest() ? 1 : most,
                found.ended() ? 0 : Math.clamp(wanted.waitMillis(), 0, LONGEST_WAIT_MILLIS));
        List<Logs.Span> outline = logs.outline(work);
        long total = outline.isEmpty() ? 0 : outline.getLast().last();
        if (wanted.newest()) {
            lines = logs.read(work, Math.max(wanted.from(), total - most + 1), most);
        }
        return new LogView(
                lines.stream()
                        .map(line -> new LogLineView(line.number(), line.line().millis(), line.line().step(),
                                line.line().text()))
                        .toList(),
                lines.isEmpty() ? wanted.from() : lines.getLast().number() + 1, total, found.ended(),
                outline.stream().map(span -> new SpanView(span.step(), span.first(), span.last())).toList());
    }

    public FoundView search(Logged found, String text) {
        if (text.isEmpty() || text.length() > 200) {
            throw Refusal.invalid("/text", "should be 1 to 200 characters");
        }
        return found.work().map(work -> logs.search(work, text, 1000))
                .map(hits -> new FoundView(hits.lines(), hits.total())).orElse(new FoundView(List.of(), 0));
    }

    /** All of it, as text. */
    public void copy(Logged found, HttpServletResponse response) throws IOException {
        response.setContentType("text/plain;charset=utf-8");
        Writer out = new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
        List<Logs.Line> lines = found.work().map(work -> logs.read(work, 1, PAGE)).orElse(List.of());
        while (!lines.isEmpty()) {
            for (Logs.Line line : lines) {
                out.write(line.line().text() + "\n");
            }
            lines = logs.read(found.work().orElseThrow(), lines.getLast().number() + 1, PAGE);
        }
        out.flush();
    }
}

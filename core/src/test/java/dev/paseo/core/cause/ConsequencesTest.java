package dev.paseo.core.cause;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.cause.Consequences.RecordedCause;
import dev.paseo.core.cause.Consequences.Node;
import dev.paseo.core.cause.Consequences.Thing;
import dev.paseo.core.cause.Spent.Stretch;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class ConsequencesTest {

    private static String words(List<Node<String>> nodes) {
        return nodes.stream().map(node -> node.value() + (node.led().isEmpty() ? "" : "(" + words(node.led()) + ")"))
                .collect(Collectors.joining(" "));
    }

    private static Thing<String> run(String component, long number, long cause) {
        return new Thing<>(List.of(Consequences.run(component, number)), cause, component + "#" + number);
    }

    private static Thing<String> deployment(long id, String component, String version, String environment, long cause) {
        return new Thing<>(List.of(Consequences.deployment(id), Consequences.live(component, version, environment)),
                cause, environment + " " + id);
    }

    @Test
    void fromAPushThroughAllComponents() {
        List<RecordedCause> causes = List.of(
                new RecordedCause(1, Optional.empty(), new Cause.Push("sun-model", "main", "3f2c91a", "developer")),
                new RecordedCause(2, Optional.of(1L), new Cause.Run("sun-model", 3)),
                new RecordedCause(3, Optional.of(2L), new Cause.Run("daylight-api", 7)),
                new RecordedCause(4, Optional.of(3L), new Cause.Walk("daylight-api", "1.4.7", "")),
                new RecordedCause(5, Optional.of(4L), new Cause.Walk("daylight-api", "1.4.7", "test")),
                new RecordedCause(6, Optional.of(5L), new Cause.Live("daylight-api", "1.4.7", "staging", 11)),
                new RecordedCause(7, Optional.of(3L), new Cause.Asked("release-engineer", Optional.empty())));
        List<Thing<String>> things = List.of(run("sun-model", 3, 1), run("daylight-api", 7, 2),
                deployment(10, "daylight-api", "1.4.7", "test", 4),
                deployment(11, "daylight-api", "1.4.7", "staging", 5), run("daylight-check", 2, 6),
                deployment(12, "daylight-api", "1.4.7", "production", 7));
        assertEquals("sun-model#3(daylight-api#7(test 10(staging 11(daylight-check#2)) production 12))",
                words(Consequences.tree(things, causes)));
    }

    @Test
    void whereTheTimeWent() {
        Instant asked = Instant.parse("2026-05-04T10:00:00Z");
        Spent spent = Spent.of(asked, Optional.of(asked.plusSeconds(10)), Optional.of(asked.plusSeconds(70)),
                List.of(new Stretch(asked.plusSeconds(40), Optional.of(asked.plusSeconds(60))),
                        new Stretch(asked.plusSeconds(20), Optional.of(asked.plusSeconds(45)))),
                asked.plusSeconds(500));
        assertEquals(new Spent(Duration.ofSeconds(10), Duration.ofSeconds(20), Duration.ofSeconds(40)), spent);
        assertEquals(new Spent(Duration.ofSeconds(30), Duration.ZERO, Duration.ZERO),
                Spent.of(asked, Optional.empty(), Optional.empty(), List.of(), asked.plusSeconds(30)));
        assertEquals(new Spent(Duration.ofSeconds(10), Duration.ofSeconds(5), Duration.ofSeconds(15)),
                Spent.of(asked, Optional.of(asked.plusSeconds(10)), Optional.empty(),
                        List.of(new Stretch(asked.plusSeconds(15), Optional.empty())), asked.plusSeconds(30)));
    }
}

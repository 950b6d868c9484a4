package dev.paseo.service.log;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;

import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class LogViewsTest {

    private final LogViews views = new LogViews(mock(Logs.class));

    @Test
    void aTextToLookForHasOneToTwoHundredCharacters() {
        for (String wrong : List.of("", "x".repeat(201))) {
            Refused.field("/text", () -> views.search(new LogViews.Logged(Optional.of(1L), true), wrong));
        }
        assertEquals(0, views.search(new LogViews.Logged(Optional.empty(), true), "x").total());
    }
}

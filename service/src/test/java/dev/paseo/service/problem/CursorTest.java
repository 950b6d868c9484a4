package dev.paseo.service.problem;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Optional;
import org.junit.jupiter.api.Test;

class CursorTest {

    @Test
    void aListHasOneOrder() {
        assertEquals(new Cursor(Long.MAX_VALUE, null), Cursor.of(Optional.empty(), Optional.empty()));
        assertEquals(new Cursor(7, null), Cursor.of(Optional.of(7L), Optional.empty()));
        assertEquals(new Cursor(Long.MAX_VALUE, 0L), Cursor.of(Optional.empty(), Optional.of(0L)));
        assertEquals("should not stand beside “before”: that is for the newest first, this for the oldest first",
                Refused.field("/after", () -> Cursor.of(Optional.of(7L), Optional.of(0L))));
    }
}

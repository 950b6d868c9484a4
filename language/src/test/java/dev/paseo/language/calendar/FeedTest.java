package dev.paseo.language.calendar;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class FeedTest {

    @Test
    void eachEventStandsThereOnceWithItsStamp() {
        Instant now = Instant.parse("2026-11-28T09:00:00Z");
        String text = Feed.write("production", now, List.of(
                new Feed.CalendarEvent("gate-1", now, now.plusSeconds(3600), "Hill race",
                        "http://127.0.0.1:7600/environments/production"),
                new Feed.CalendarEvent("gate-2", now.plusSeconds(7200), now.plusSeconds(9000), "Path works", "")));
        assertEquals(2, text.split("BEGIN:VEVENT", -1).length - 1, text);
        assertEquals(2, text.split("DTSTAMP:20261128T090000Z", -1).length - 1, text);
        assertTrue(text.contains("SUMMARY:Hill race") && text.contains("UID:gate-1")
                && text.contains("URL:http://127.0.0.1:7600/environments/production"), text);
    }

    @Test
    void whereNothingIsKnownThereIsACalendarAllTheSame() {
        assertTrue(Feed.write("test", Instant.EPOCH, List.of()).startsWith("BEGIN:VCALENDAR"));
    }
}

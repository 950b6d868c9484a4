package dev.paseo.service.announcement;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.announcement.AnnouncementMapper.DueRow;
import dev.paseo.service.announcement.AnnouncementMapper.MessageRow;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class AnnouncementMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final AnnouncementMapper mapper = database.mapper(AnnouncementMapper.class);
    private final long receiver = database.rows().receiver();

    private void post(String message) {
        mapper.post(receiver, message, "service.deployed", "{}", NOW);
    }

    private Optional<DueRow> due(Instant at) {
        return mapper.due(at).stream().filter(row -> row.receiverId() == receiver).findFirst();
    }

    private MessageRow message() {
        return mapper.messages(receiver, Long.MAX_VALUE, 10).getFirst();
    }

    @Test
    void aMessageIsPostedOnceAndSentByOne() throws Exception {
        post("one");
        post("one");
        assertEquals(1, mapper.messages(receiver, Long.MAX_VALUE, 10).size());
        DueRow due = due(NOW).orElseThrow();
        assertEquals(1, RealDatabase.atOnce(12, () -> mapper.claim(due.id(), due.dueAt(), NOW.plusSeconds(60))).stream()
                .mapToInt(Integer::intValue).sum());
        assertEquals(1, message().tries());
        assertFalse(due(NOW).isPresent(), "it is in hand");
        assertTrue(due(NOW.plusSeconds(60)).isPresent(), "whoever had it did not come back");
    }

    @Test
    void whatWasDeliveredIsNotDueUntilSomebodySendsItAgain() {
        post("one");
        long id = due(NOW).orElseThrow().id();
        mapper.delivered(id, NOW);
        assertFalse(due(NOW.plusSeconds(3600)).isPresent());
        assertEquals(0, mapper.claim(id, NOW, NOW), "nor is it claimed");
        assertEquals(0, mapper.resend(id, receiver + 1, NOW), "it is of another receiver");
        assertEquals(1, mapper.resend(id, receiver, NOW.plusSeconds(7200)));
        assertTrue(due(NOW.plusSeconds(7200)).isPresent());
    }

    @Test
    void whoWasStoppedIsSentNothing() {
        post("one");
        assertEquals(1, mapper.stop(receiver, NOW));
        assertFalse(due(NOW.plusSeconds(60)).isPresent());
        assertEquals(0, mapper.stop(receiver, NOW), "it is stopped already");
    }
}

package dev.paseo.service.notice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OwnNoticesTest {

    private final RealDatabase database = RealDatabase.get();
    private final Components components = mock(Components.class);
    private final OwnNotices notices = new OwnNotices(database.mapper(NoticeMapper.class), components,
            mock(ServiceClock.class));
    private final Person somebody = new Person(database.rows().account(), "somebody", Set.of(), List.of());

    private void choose(String event, String channel, String delivery, Optional<String> component) {
        notices.choose(somebody, new OwnNotices.ChoiceRequest(event, channel, delivery, component));
    }

    @ParameterizedTest
    @CsvSource({"birthdays, mail, now", "waits, pigeon, now", "waits, mail, weekly", "waits, console, hourly"})
    void whatCannotBeChosenIsRefusedAndNothingIsKept(String event, String channel, String delivery) {
        assertEquals(Refusal.Kind.INVALID,
                assertThrows(Refusal.class, () -> choose(event, channel, delivery, Optional.empty())).kind());
    }

    @Test
    void aComponentThatIsNotThereIsNothingToChooseFor() {
        when(components.named("no-such")).thenThrow(Refusal.notFound("There is no component no-such"));
        assertThrows(Refusal.class, () -> choose("waits", "mail", "daily", Optional.of("no-such")));
        assertEquals(Set.of(), notices.choices(somebody).components().keySet());
    }

    @Test
    void whatIsChosenForOneComponentHoldsThereUntilItIsAsElsewhere() {
        choose("waits", "mail", "off", Optional.of("daylight-api"));
        assertEquals("off", waits(notices.choices(somebody).components().get("daylight-api")));
        notices.asElsewhere(somebody, "daylight-api");
        assertEquals(Set.of(), notices.choices(somebody).components().keySet());
    }

    private static String waits(List<OwnNotices.ChoiceView> choices) {
        return choices.stream().filter(each -> each.event().equals("waits")).findFirst().orElseThrow().mail();
    }
}

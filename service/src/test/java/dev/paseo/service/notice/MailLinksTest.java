package dev.paseo.service.notice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class MailLinksTest {

    private static final Person ANNA = new Person(7, "anna", Set.of(), List.of());
    private static final Person BERT = new Person(8, "bert", Set.of(), List.of());

    private final NoticeMapper mapper = mock(NoticeMapper.class);
    private final MailLinks links = new MailLinks(mapper, new AtNoon().clock, mock(Settings.class));

    private void link(@Nullable Instant used) {
        when(mapper.link(anyString())).thenReturn(
                Optional.of(new NoticeMapper.LinkRow(7, "anna", "/deployments/3", Rows.NOON, used)));
    }

    @Test
    void aLinkIsForOneOnceAndForAWhile() {
        link(null);
        when(mapper.use(anyString(), any())).thenReturn(1, 0);
        assertEquals("This link was sent to anna, and you are signed in as bert: a link is for the one it was sent to",
                Refused.by(Kind.NOT_ALLOWED, () -> links.use("x", BERT)));
        assertEquals("/deployments/3", links.use("x", ANNA));
        String expired = Refused.by(Kind.CONFLICT, () -> links.use("x", ANNA));
        assertEquals("This link expired on TIME", expired.replaceAll("on .*", "on TIME"));
        link(Rows.NOON);
        String used = Refused.by(Kind.CONFLICT, () -> links.use("x", ANNA));
        assertEquals("This link was used on TIME, and a link works once", used.replaceAll("on .* UTC", "on TIME"));
    }
}

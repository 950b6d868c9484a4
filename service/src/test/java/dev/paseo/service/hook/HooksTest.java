package dev.paseo.service.hook;

import dev.paseo.service.trigger.Pusher;
import dev.paseo.service.trigger.Polls;
import dev.paseo.service.trigger.Pushes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.store.Stores;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** What whoever pushed hears. */
class HooksTest {

    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "sun-board",
            Optional.of("file:///srv/git/board.git"),
            "paseo.yaml", "main", "", Optional.empty());

    private final Pushes pushes = mock(Pushes.class);
    private final Hooks hooks = new Hooks(pushes, mock(Polls.class), mock(Stores.class), JsonMapper.shared());

    private String[] answered(int gone) {
        when(pushes.look(anyString(), any())).thenReturn(new Pushes.Seen(List.of(),
                IntStream.range(0, gone).mapToObj(at -> new Pushes.Gone("sun-board", "feature/" + at, false)).toList(),
                List.of(), List.of()));
        return hooks.follow(COMPONENT, Pusher.UNTOLD).split("\n");
    }

    @Test
    void aPushHasAtMostFortyLinesAndSaysHowManyMoreThereAre() {
        assertEquals(40, answered(40).length);
        String[] lines = answered(45);
        assertEquals(41, lines.length);
        assertEquals("And 5 more: paseo why sun-board", lines[40]);
    }

    @Test
    void whoPushedWhileTheRepositoryIsAwayHearsThatNothingIsLost() {
        when(pushes.look(anyString(), any())).thenThrow(Refusal.unavailable("The repository is away"));
        assertEquals("The repository is away. It is tried again soon; no push is lost.",
                Refused.by(Refusal.Kind.UNAVAILABLE, () -> hooks.follow(COMPONENT, Pusher.UNTOLD)));
    }

    @Test
    void whereNothingHasMovedItSaysWhereToLook() {
        assertEquals(
                "Nothing has moved since Paseo looked last: what was pushed was noticed already. What came of it: "
                        + "paseo why sun-board",
                answered(0)[0]);
    }
}

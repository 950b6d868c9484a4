package dev.paseo.service.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.FileInForce;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;

/** One branch that cannot be read keeps none of the others from being followed. */
class PushesTest {

    private static final String REPOSITORY = "https://git.example/sun-board.git";
    private static final Registered COMPONENT = new Registered(7, "sun-board", Optional.of(REPOSITORY), "paseo.yaml", "main", "", Optional.empty());

    private final Components components = mock(Components.class);
    private final Starting starting = mock(Starting.class);
    private final Mirror mirror = mock(Mirror.class);
    private final Pushes pushes = new Pushes(components, starting, mock(EventMapper.class), mock(PipelineChecks.class));

    @BeforeEach
    void threeBranches() {
        Map<String, String> heads = new LinkedHashMap<>(Map.of());
        heads.put("feature/fog", "f".repeat(40));
        heads.put("feature/odd", "0".repeat(40));
        heads.put("main", "a".repeat(40));
        when(components.ofRepository(REPOSITORY)).thenReturn(List.of(COMPONENT));
        when(components.mirror(COMPONENT)).thenReturn(mirror);
        when(components.heads(7)).thenReturn(Map.of());
        when(components.readFile(any(), anyString())).thenReturn(new FileInForce(1, Optional.empty(), List.of(), List.of()));
        when(mirror.refs()).thenReturn(new Mirror.Refs(heads, Map.of()));
        when(mirror.commit(anyString())).thenAnswer(call -> new Mirror.Commit(call.getArgument(0), "A change", "developer", "developer@park.example", Instant.EPOCH, Optional.empty()));
        when(starting.happened(any(), any())).thenReturn(Optional.of(new Starting.Led(1, List.of(), Optional.of("nothing asks for it"))));
    }

    @Test
    void theOthersAreFollowedAndItIsTold() {
        when(components.readFile(COMPONENT, "0".repeat(40))).thenThrow(Refusal.unavailable("git has not the bytes of paseo.yaml"));
        Pushes.Seen seen = pushes.look(REPOSITORY, Optional.empty());
        assertEquals(List.of("main", "feature/fog"), seen.moved().stream().map(Pushes.Moved::name).toList());
        assertEquals(List.of("feature/odd of sun-board cannot be read at 0000000: git has not the bytes of paseo.yaml"), seen.unread().stream().map(Pushes.Unread::sentence).toList());
        verify(starting).refused(any(), org.mockito.ArgumentMatchers.eq("it cannot be read: git has not the bytes of paseo.yaml; it is tried again"));
    }

    @Test
    void aTagThatCannotBeReadIsToldAsATag() {
        when(mirror.refs()).thenReturn(new Mirror.Refs(Map.of(), Map.of("v1.2", "0".repeat(40))));
        when(mirror.branchesWith("0".repeat(40))).thenThrow(Refusal.unavailable("git does not answer"));
        assertEquals(List.of("v1.2 of sun-board cannot be read at 0000000: git does not answer"),
                pushes.look(REPOSITORY, Optional.empty()).unread().stream().map(Pushes.Unread::sentence).toList());
        verify(starting).refused(org.mockito.ArgumentMatchers.argThat(happened -> happened.sentence().equals("tag v1.2 on commit 0000000") && happened.kind().equals("tag")), anyString());
    }

    /** What concerns them all is no branch's fault: nothing is told of one, and all of it is tried again. */
    @Test
    void thatTheDatabaseIsAwayEndsTheLook() {
        when(components.readFile(COMPONENT, "0".repeat(40))).thenThrow(new DataAccessResourceFailureException("gone"));
        assertThrows(DataAccessResourceFailureException.class, () -> pushes.look(REPOSITORY, Optional.empty()));
    }
}

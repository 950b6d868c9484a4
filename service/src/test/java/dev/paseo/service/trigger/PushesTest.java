package dev.paseo.service.trigger;

import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.start.StartTriggers;
import dev.paseo.core.trigger.BranchRules;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoMoreInteractions;
import static org.mockito.Mockito.when;

import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.dao.DataAccessResourceFailureException;

/** One branch that cannot be read keeps none of the others from being followed. */
class PushesTest {

    private static final String REPOSITORY = "https://git.example/sun-board.git";
    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "sun-board",
            Optional.of(REPOSITORY), "paseo.yaml",
            "main", "", Optional.empty());

    private final Components components = mock(Components.class);
    private final Starting starting = mock(Starting.class);
    private final Mirror mirror = mock(Mirror.class);
    private final EventMapper events = mock(EventMapper.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final PipelineChecks checks = mock(PipelineChecks.class);
    private final Pushes pushes = new Pushes(components, starting, events, checks, clock);

    @BeforeEach
    void threeBranches() {
        Map<String, String> heads = new LinkedHashMap<>(Map.of());
        heads.put("feature/fog", "f".repeat(40));
        heads.put("feature/odd", "0".repeat(40));
        heads.put("main", "a".repeat(40));
        when(components.ofRepository(REPOSITORY)).thenReturn(List.of(COMPONENT));
        when(components.mirror(COMPONENT)).thenReturn(mirror);
        when(components.heads(7)).thenReturn(Map.of());
        when(components.readFile(any(), anyString()))
                .thenReturn(new FileInForce(1, Optional.empty(), List.of(), List.of()));
        when(mirror.refs()).thenReturn(new Mirror.Refs(heads, Map.of()));
        when(mirror.commit(anyString())).thenAnswer(call -> new Mirror.Commit(call.getArgument(0), "A change",
                "developer", "developer@park.example", Instant.EPOCH, Optional.empty()));
        when(starting.happened(any(), any()))
                .thenReturn(Optional.of(new Starting.Led(1, List.of(), Optional.of("nothing asks for it"))));
    }

    @Test
    void theOthersAreFollowedAndItIsTold() {
        when(components.readFile(COMPONENT, "0".repeat(40)))
                .thenThrow(Refusal.unavailable("git has not the bytes of paseo.yaml"));
        Pushes.Seen seen = pushes.look(REPOSITORY, Pusher.UNTOLD);
        assertEquals(List.of("main", "feature/fog"), seen.moved().stream().map(Pushes.Moved::name).toList());
        assertEquals(List.of("feature/odd of sun-board cannot be read at 0000000: git has not the bytes of paseo.yaml"),
                seen.unread().stream().map(Pushes.Unread::sentence).toList());
        verify(starting).refused(any(), org.mockito.ArgumentMatchers
                .eq("it cannot be read: git has not the bytes of paseo.yaml; it is tried again"));
    }

    @Test
    void aTagThatCannotBeReadIsToldAsATag() {
        when(mirror.refs()).thenReturn(new Mirror.Refs(Map.of(), Map.of("v1.2", "0".repeat(40))));
        when(mirror.branchesWith("0".repeat(40))).thenThrow(Refusal.unavailable("git does not answer"));
        assertEquals(List.of("v1.2 of sun-board cannot be read at 0000000: git does not answer"),
                pushes.look(REPOSITORY, Pusher.UNTOLD).unread().stream().map(Pushes.Unread::sentence).toList());
        verify(starting).refused(org.mockito.ArgumentMatchers.argThat(
                happened -> happened.sentence().equals("tag v1.2 on commit 0000000") && happened.kind().equals("tag")),
                anyString());
    }

    /** What concerns them all is no branch's fault: nothing is told of one, and all of it is tried again. */
    @Test
    void thatTheDatabaseIsAwayEndsTheLook() {
        when(components.readFile(COMPONENT, "0".repeat(40))).thenThrow(new DataAccessResourceFailureException("gone"));
        assertThrows(DataAccessResourceFailureException.class, () -> pushes.look(REPOSITORY, Pusher.UNTOLD));
    }

    /** A look that nobody asked for comes between the push and its hook, and is done first. */
    @Test
    void whoPushedIsToldWhereAnotherLookWasFirst() {
        when(clock.now()).thenReturn(Rows.NOON);
        when(starting.happened(any(), any())).thenReturn(Optional.empty());
        assertEquals(List.of(), pushes.look(REPOSITORY, Pusher.of("developer", "main")).moved());
        verify(events).tell(7, "main", "a".repeat(40), "developer", Rows.NOON.minus(Duration.ofMinutes(10)));
    }

    /**
     * What moved beside what was told of was pushed by nobody knows whom; before, whoever pushed next was taken to have
     * pushed it.
     */
    @Test
    void aPusherPushedWhatWasToldAndNothingElse() {
        pushes.look(REPOSITORY, Pusher.of("developer", "feature/fog"));
        ArgumentCaptor<Happened> happened = ArgumentCaptor.forClass(Happened.class);
        verify(starting, times(3)).happened(happened.capture(), any());
        Map<String, Happened> byBranch = happened.getAllValues().stream()
                .collect(Collectors.toMap(each -> each.branch().orElseThrow(), each -> each));
        assertTrue(byBranch.get("feature/fog").told());
        assertEquals("push fffffff to feature/fog by developer", byBranch.get("feature/fog").sentence());
        assertFalse(byBranch.get("main").told());
        assertEquals("push aaaaaaa to main (nobody told by whom; committed by developer@park.example)",
                byBranch.get("main").sentence());
    }

    /** The file of one commit is read once for all that is asked of it. */
    @Test
    void aFileIsReadOncePerPush() {
        when(mirror.refs()).thenReturn(new Mirror.Refs(Map.of("main", "a".repeat(40)), Map.of("v1.2", "b".repeat(40))));
        when(components.rules(7)).thenReturn(BranchRules.of(List.of(), List.of("main")));
        when(starting.happened(any(), any())).thenAnswer(call -> {
            Happened happened = call.getArgument(0);
            new InForce(components, mock(StartTriggers.class)).concernedBy(happened);
            return Optional.empty();
        });
        pushes.look(REPOSITORY, Pusher.UNTOLD);
        verify(components, times(1)).readFile(COMPONENT, "a".repeat(40));
        verify(components, times(1)).readFile(COMPONENT, "b".repeat(40));
    }

    /** A poll was there first: the hook still says who pushed, for a while. */
    @Test
    void aHookThatComesLateStillSaysWhoPushed() {
        Instant now = Instant.parse("2026-07-01T12:00:00Z");
        when(clock.now()).thenReturn(now);
        when(components.heads(7)).thenReturn(
                Map.of("main", "a".repeat(40), "feature/fog", "f".repeat(40), "feature/odd", "0".repeat(40)));
        pushes.look(REPOSITORY, Pusher.of("developer", "main"));
        verify(events).tell(7, "main", "a".repeat(40), "developer", now.minusSeconds(600));
        pushes.look(REPOSITORY, new Pusher(Optional.of(" "), Optional.of(Set.of("main"))));
        pushes.look(REPOSITORY, new Pusher(Optional.of("developer"), Optional.empty()));
        verifyNoMoreInteractions(events);
    }

    /** However much changes in one push, triggers by path look at so many files. */
    @Test
    void onlySoManyChangedFilesAreLookedAt() {
        String text = "paseo: 1\ncomponent: sun-board\nversions: \"1.{serial}\"\nstarts: [{push: [main], paths: "
                + "[times/**]}]\nstages: {build: {steps: ['true']}}\n";
        when(components.readFile(any(), anyString()))
                .thenReturn(new FileInForce(1, PipelineFileReader.read(text).value(), List.of(), List.of()));
        when(events.lastStarted(7, "main")).thenReturn(Optional.of("b".repeat(40)));
        pushes.look(REPOSITORY, Pusher.UNTOLD);
        verify(mirror).changed("b".repeat(40), "a".repeat(40), 10_000);
    }
}

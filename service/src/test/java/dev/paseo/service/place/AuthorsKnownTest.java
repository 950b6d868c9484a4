package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is proposed is judged with its authors known. */
class AuthorsKnownTest {

    private static final Environments.Place PLACE = SomePlace.of("path-board");

    private final PlaceRepository repository = mock(PlaceRepository.class);
    private final Environments environments = mock(Environments.class);
    private final Authorship authorship = mock(Authorship.class);
    private final AuthorsKnown authors = new AuthorsKnown(repository, mock(AtGates.class), authorship, environments,
            mock(Versions.class));
    private final Versions.Version version = mock(Versions.Version.class);
    private final AtomicInteger tried = new AtomicInteger();

    @BeforeEach
    void aVersionWithACommit() {
        when(environments.placeById(3)).thenReturn(PLACE);
        when(repository.open(3)).thenReturn(List.of());
        when(repository.version(PLACE)).thenReturn(Optional.empty());
        when(version.commit()).thenReturn(Optional.of("c0ffee"));
    }

    private int movingOn(int times) {
        return authors.knowing(3, version, () -> {
            if (tried.incrementAndGet() <= times) {
                throw mock(Gates.AuthorsUnknown.class);
            }
            return tried.get();
        });
    }

    @Test
    void whereWhatIsLiveMovedOnTheyAreLearnedAgain() {
        assertEquals(3, movingOn(2));
        verify(authorship, times(3)).learn(any(Long.class), any(), any());
    }

    @Test
    void whereItKeepsMovingNobodyWaitsForEver() {
        assertEquals("What is live there keeps changing: try again",
                Refused.by(Kind.UNAVAILABLE, () -> movingOn(Integer.MAX_VALUE)));
        assertEquals(10, tried.get());
    }
}

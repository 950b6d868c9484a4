package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Cursor;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class DeploymentsFacadeTest {

    private final RealDatabase database = RealDatabase.get();
    private final DeploymentMapper mapper = database.mapper(DeploymentMapper.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final Deployments deployments = new Deployments(mapper, mock(PlaceRepository.class), clock);
    private final Rows.Place place = database.rows().place();
    private final long line = database.rows().line(place.component());

    @BeforeEach
    void time() {
        when(clock.now()).thenReturn(Rows.NOON);
    }

    private long asked(Kind kind, long order) {
        return deployments.ask(new Deployments.Asked(place.id(), database.rows().version(place.component(), line,
                order), kind, Optional.empty(), database.rows().cause(), 1, Optional.empty()));
    }

    @Test
    void whatIsAskedWaitsAndKeepsItsKind() {
        for (Kind kind : Kind.values()) {
            Deployment deployment = deployments.get(asked(kind, kind.ordinal() + 1));
            assertEquals(kind, deployment.kind());
            assertEquals(DeploymentStatus.WAITING, deployment.status());
            assertEquals(Rows.NOON, deployment.requestedAt());
        }
        assertEquals(Kind.values().length, deployments.newest(place.id(), 10).size());
        assertEquals(Kind.PREVIEW, deployments.newest(place.id(), 1).getFirst().kind());
    }

    @Test
    void aNumberThatNoDeploymentHasIsRefused() {
        assertEquals(Refusal.Kind.NOT_FOUND,
                assertThrows(Refusal.class, () -> deployments.get(Long.MAX_VALUE)).kind());
        assertEquals(Optional.empty(), deployments.find(Long.MAX_VALUE));
    }

    private static final Cursor NEWEST = new Cursor(Long.MAX_VALUE, null);

    @Test
    void aListHasWhatIsAskedFor() {
        long id = asked(Kind.PROMOTION, 1);
        String component = deployments.get(id).component();
        assertEquals(List.of(id), ids(Optional.of(component), Optional.of(DeploymentStatus.WAITING), NEWEST));
        assertEquals(List.of(), ids(Optional.of(component), Optional.of(DeploymentStatus.LIVE), NEWEST));
        assertEquals(List.of(), ids(Optional.of(component), Optional.empty(), new Cursor(id, null)));
        assertEquals(List.of(), ids(Optional.of(component), Optional.empty(), new Cursor(Long.MAX_VALUE, id)));
        assertEquals(List.of(id), ids(Optional.of(component), Optional.empty(), new Cursor(Long.MAX_VALUE, id - 1)));
        assertEquals(List.of(), ids(Optional.of("no-such"), Optional.empty(), NEWEST));
    }

    private List<Long> ids(Optional<String> component, Optional<DeploymentStatus> status, Cursor cursor) {
        return deployments.list(new Deployments.Filter(component, Optional.empty(), status, Optional.empty(),
                Optional.empty(), Optional.empty(), cursor, 10)).stream()
                .map(Deployment::id).toList();
    }

    @Test
    void itIsReviewedOnce() {
        long id = asked(Kind.PROMOTION, 1);
        assertEquals(Optional.empty(), deployments.toReview(id));
        deployments.toReview(id, Rows.NOON.plusSeconds(60));
        assertFalse(deployments.toReview(id).orElseThrow().done());
        long somebody = database.rows().account();
        assertTrue(deployments.reviewed(id, somebody, "fine"));
        assertFalse(deployments.reviewed(id, somebody, "fine"), "it was looked at already");
        assertTrue(deployments.toReview(id).orElseThrow().done());
    }
}

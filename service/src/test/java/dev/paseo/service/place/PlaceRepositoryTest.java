package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.Course;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostOutcome;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.HostTask;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceDecider;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.PlaceSnapshot;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataIntegrityViolationException;

/** What the core decides is what the rows say afterwards: saved, and loaded again. */
class PlaceRepositoryTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final DeploymentMapper mapper = database.mapper(DeploymentMapper.class);
    private final Versions versions = mock(Versions.class);
    private final PlaceRepository repository = new PlaceRepository(mapper, versions, mock(Environments.class),
            database.json());
    private final Rows.Place row = database.rows().place();
    private final long line = database.rows().line(row.component());
    private final long host = database.rows().host(row.id());
    private String hostName = "";
    private Optional<Long> live = Optional.empty();

    @BeforeEach
    void names() {
        hostName = mapper.hostsNow(row.id()).getFirst().host();
        when(versions.byId(anyLong())).thenAnswer(call -> sealed(call.getArgument(0)));
    }

    private Versions.Version sealed(long version) {
        Versions.Version sealed = mock(Versions.Version.class);
        when(sealed.number()).thenReturn("1.4." + version);
        when(sealed.line()).thenReturn(line);
        when(sealed.order()).thenReturn(version);
        return sealed;
    }

    private Environments.Place place() {
        return new Environments.Place(row.id(), row.environment(), "staging", "UTC", 1, row.component(), "daylight-api",
                Optional.empty(), 1, live, Optional.empty(), Optional.empty(), Optional.empty());
    }

    private LoadedPlace happens(LoadedPlace kept, PlaceEvent event, Instant at) {
        Decision<PlaceSnapshot, ?> decision = PlaceDecider.decide(kept.snapshot(), event, at);
        PlaceSnapshot after = ((Decision.Moved<PlaceSnapshot, ?>) decision).state();
        LoadedPlace saved = repository.save(kept, after, at);
        live = after.live().map(PlaceSnapshot.Live::deployment);
        return saved;
    }

    /** Requested and begun. */
    private LoadedPlace begun(LoadedPlace before, long order, Instant at) {
        long version = database.rows().version(row.component(), line, order);
        long id = database.rows().deployment(row.id(), version);
        DeploymentState asked = new DeploymentState(id, "1.4." + order, line, order, Kind.PROMOTION, false,
                DeploymentStatus.WAITING, List.of(HostState.ahead(hostName)), DeploymentState.OnFailure.UNDO,
                DeploymentState.WayBack.NONE, Optional.empty(),
                null, new DeploymentState.Terms(false, Optional.empty(), false, Optional.of(true)));
        LoadedPlace now = happens(before, new PlaceEvent.Requested(asked), at);
        return happens(now, new PlaceEvent.GatesJudged(Map.of(id, Verdict.OPEN)), at);
    }

    /** Installed and, without checks, live. */
    private LoadedPlace installed(LoadedPlace begun, Instant at) {
        long id = begun.snapshot().open().getLast().id();
        return happens(begun, new PlaceEvent.HostReported(id, hostName, HostTask.INSTALL, new HostOutcome.Done()), at);
    }

    private LoadedPlace deployed(LoadedPlace before, long order, Instant at) {
        return installed(begun(before, order, at), at);
    }

    @Test
    void whatIsLiveMovesOnlyFromWhatWasSeen() {
        deployed(repository.load(place()), 1, NOW);
        LoadedPlace begun = begun(repository.load(place()), 2, NOW.plusSeconds(60));
        long other = database.rows().deployment(row.id(), database.rows().version(row.component(), line, 3));
        database.change("update place set live_deployment_id = ? where id = ?", other, row.id());
        assertThrows(Transactions.LostRace.class, () -> installed(begun, NOW.plusSeconds(90)));
    }

    @Test
    void whatIsSavedIsLoadedAgain() {
        LoadedPlace first = deployed(repository.load(place()), 1, NOW);
        LoadedPlace second = deployed(repository.load(place()), 2, NOW.plusSeconds(60));
        PlaceSnapshot again = repository.load(place()).snapshot();
        assertEquals(second.snapshot().live().map(PlaceSnapshot.Live::deployment),
                again.live().map(PlaceSnapshot.Live::deployment));
        assertEquals(Map.of(hostName, new PlaceSnapshot.Has(live.orElseThrow(), true, NOW.plusSeconds(60))),
                again.hosts());
        assertEquals(first.snapshot().live().orElseThrow().deployment(),
                again.replaces().get(live.orElseThrow()).deployment());
        Deployment old = mapper.byId(first.snapshot().live().orElseThrow().deployment()).orElseThrow();
        assertEquals(DeploymentStatus.REPLACED, old.status());
        assertEquals(NOW, old.liveAt());
        assertEquals(NOW.plusSeconds(60), old.endedAt());
    }

    @Test
    void whatGoesBackMakesTheRowOfWhatItReplacedLiveAgain() {
        long first = deployed(repository.load(place()), 1, NOW).snapshot().live().orElseThrow().deployment();
        LoadedPlace second = deployed(repository.load(place()), 2, NOW.plusSeconds(60));
        long gone = live.orElseThrow();
        LoadedPlace undoing = happens(repository.load(place()), new PlaceEvent.GoesBack(gone, "its set goes back"),
                NOW.plusSeconds(90));
        happens(undoing, new PlaceEvent.HostReported(gone, hostName, HostTask.UNDO, new HostOutcome.Done()),
                NOW.plusSeconds(90));
        assertEquals(Optional.of(first), live);
        Deployment again = mapper.byId(first).orElseThrow();
        assertEquals(DeploymentStatus.LIVE, again.status());
        assertEquals(null, again.endedAt());
        assertEquals(DeploymentStatus.UNDONE, mapper.byId(gone).orElseThrow().status());
        PlaceSnapshot loaded = repository.load(place()).snapshot();
        assertEquals(DeploymentStatus.LIVE, loaded.deployment(first).orElseThrow().status(), "although its state was "
                + "kept as replaced");
        assertEquals(first, loaded.hosts().get(hostName).deployment());
        assertEquals(2, second.rows().size());
    }

    @Test
    void twoThatSawTheSamePlaceDoNotBothMoveIt() throws Exception {
        LoadedPlace before = repository.load(place());
        long version = database.rows().version(row.component(), line, 1);
        long id = database.rows().deployment(row.id(), version);
        DeploymentState asked = new DeploymentState(id, "1.4.1", line, 1, Kind.PROMOTION, false,
                DeploymentStatus.WAITING, List.of(HostState.ahead(hostName)), DeploymentState.OnFailure.UNDO,
                DeploymentState.WayBack.NONE, Optional.empty(), Course.of(List.of(), Course.Sides.NONE, 0), null);
        LoadedPlace requested = happens(before, new PlaceEvent.Requested(asked), NOW);
        Decision.Moved<PlaceSnapshot, ?> withdrawn = (Decision.Moved<PlaceSnapshot, ?>) PlaceDecider
                .decide(requested.snapshot(), new PlaceEvent.CancelAsked(id, "somebody"), NOW);
        List<Boolean> saved = RealDatabase.atOnce(8, () -> {
            try {
                database.transactions().in(() -> {
                    try {
                        return repository.save(requested, withdrawn.state(), NOW);
                    } catch (Transactions.LostRace lost) {
                        throw new IllegalStateException(lost);
                    }
                });
                return true;
            } catch (IllegalStateException lost) {
                return false;
            }
        });
        assertEquals(1, saved.stream().filter(Boolean::booleanValue).count(), saved::toString);
    }

    @Test
    void theDatabaseRefusesASecondVersionOnAHostAndASecondLiveOne() {
        deployed(repository.load(place()), 1, NOW);
        long other = database.rows().deployment(row.id(), database.rows().version(row.component(), line, 9));
        assertThrows(DataIntegrityViolationException.class,
                () -> mapper.openInterval(host, row.component(), other, NOW));
        assertThrows(DataIntegrityViolationException.class, () -> mapper.beginStretch(other, NOW));
        assertThrows(DataIntegrityViolationException.class, () -> mapper.live(row.id(), live.orElseThrow(), 0L, null),
                "what is live is a deployment");
    }

    @Test
    void onlyTheOpenOnesAndTheLiveOneAreLoaded() {
        deployed(repository.load(place()), 1, NOW);
        deployed(repository.load(place()), 2, NOW);
        long waiting = database.rows().deployment(row.id(), database.rows().version(row.component(), line, 3));
        assertEquals(Set.of(live.orElseThrow(), waiting),
                Set.copyOf(mapper.open(row.id()).stream().map(Deployment::id).toList()));
        assertEquals(false, repository.isQuiet(row.id()));
    }
}

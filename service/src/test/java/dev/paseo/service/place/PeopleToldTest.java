package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.atMost;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Route;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.database.Rows;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.version.Versions;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.ArgumentCaptor;

/** Who is told what of a deployment: whoever asked for it, wrote it, follows it, or has to act. */
class PeopleToldTest {

    private static final Place PLACE = SomePlace.of("path-board");

    private final Notices notices = mock(Notices.class);
    private final Authorship authorship = mock(Authorship.class);
    private final Versions versions = mock(Versions.class);
    private final DeploymentMapper mapper = mock(DeploymentMapper.class);
    private final Accounts accounts = mock(Accounts.class);
    private final PeopleTold told = new PeopleTold(notices, authorship, versions, mapper, accounts);
    private final Deployment row = mock(Deployment.class);

    private static Person person(String name, Role role) {
        return new Person(1, name, Set.of(), List.of(new Grant(role, Optional.empty(), Optional.of("production"))));
    }

    @BeforeEach
    void benAskedAndAnnaWroteIt() {
        Versions.Version version = mock(Versions.Version.class);
        when(version.number()).thenReturn("1.4.2");
        when(version.branch()).thenReturn("feature/map");
        when(version.commit()).thenReturn(Optional.of("c0ffee00c0ffee"));
        when(version.route()).thenReturn(new Route(List.of(Map.of("production", Route.Mode.AUTOMATIC))));
        when(versions.byId(9)).thenReturn(version);
        when(row.id()).thenReturn(11L);
        when(row.versionId()).thenReturn(9L);
        when(row.requestedBy()).thenReturn("ben");
        when(row.status()).thenReturn(DeploymentStatus.WAITING);
        when(mapper.byId(11)).thenReturn(Optional.of(row));
        when(authorship.behind(anyLong(), any(), anyString()))
                .thenReturn(Optional.of(new Authorship.Behind(Set.of("anna"), Set.of())));
        when(accounts.people()).thenReturn(List.of(person("olga", Role.OPERATOR), person("vera", Role.VIEWER),
                person("dora", Role.APPROVER)));
    }

    private void moved(DeploymentStatus to, Kind kind, String ending) {
        told.moved(PLACE, row, new DeploymentState(11, "1.4.2", 2, 5, kind, false, to, List.of(),
                DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.NONE, Optional.ofNullable(ending), null,
                null));
    }

    private String said() {
        ArgumentCaptor<Collection<String>> people = ArgumentCaptor.captor();
        ArgumentCaptor<Notices.Said> said = ArgumentCaptor.captor();
        verify(notices, atMost(1)).tell(people.capture(), said.capture());
        return people.getAllValues().isEmpty() ? ""
                : String.join(" ", people.getValue().stream().sorted().toList()) + ": " + said.getValue().title()
                        + " / " + said.getValue().body();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "REJECTED  | ben: path-board 1.4.2 in production was rejected / why",
            "EXPIRED   | ben: path-board 1.4.2 in production was expired / why",
            "OVERTAKEN | ben: path-board 1.4.2 in production was overtaken / why",
            "WITHDRAWN | ben: path-board 1.4.2 in production was withdrawn / why",
            "DEPLOYING | ben: path-board 1.4.2 in production goes ahead / Its gate is open.",
            "REMOVED   | ben: path-board 1.4.2 in production was removed / why",
            "FAILED    | anna ben: path-board 1.4.2 in production failed / why",
            "UNDONE    | anna ben: path-board 1.4.2 in production was undone / why",
            "STOPPED   | anna ben olga: path-board 1.4.2 in production stopped half way: somebody has to act / why",
            "LIVE      | anna: path-board 1.4.2 in production is live / Your commits up to c0ffee00 are live.",
            "REPLACED  | ",
            "QUEUED    | "})
    void whoeverItConcernsIsTold(DeploymentStatus to, String expected) {
        moved(to, Kind.PROMOTION, "why");
        assertEquals(Optional.ofNullable(expected).orElse(""), said());
    }

    @Test
    void thatAGateIsOpenIsToldWhereItWaitedThere() {
        when(row.status()).thenReturn(DeploymentStatus.QUEUED);
        moved(DeploymentStatus.DEPLOYING, Kind.PROMOTION, null);
        assertEquals("", said());
    }

    @Test
    void ofAPreviewItsAuthorsAreTold() {
        moved(DeploymentStatus.LIVE, Kind.PREVIEW, null);
        assertEquals("anna: Your preview of feature/map is ready / path-board 1.4.2 is live in production.", said());
    }

    @ParameterizedTest
    @CsvSource({"LIVE, path-board 1.4.2 in production is live", "FAILED, path-board 1.4.2 in production failed",
            "UNDONE, path-board 1.4.2 in production was undone"})
    void whoFollowsItHearsHowItEnded(DeploymentStatus to, String title) {
        moved(to, Kind.PROMOTION, null);
        ArgumentCaptor<Notices.Said> said = ArgumentCaptor.captor();
        verify(notices).tellFollowers(any(Notices.Followed.class), said.capture());
        assertEquals(title, said.getValue().title());
    }

    @Test
    void whoFollowsItHearsNothingOfWhatIsUnderWayOrReplaced() {
        moved(DeploymentStatus.DEPLOYING, Kind.PROMOTION, null);
        moved(DeploymentStatus.REPLACED, Kind.PROMOTION, null);
        verify(notices, never()).tellFollowers(any(Notices.Followed.class), any());
    }

    @Test
    void aTestThatFailedIsToldToWhoMayDeployItAgain() {
        told.testFailed(PLACE, row, "two of nine failed");
        assertEquals(true, said().startsWith("anna ben olga: path-board 1.4.2 does not go on from production / "));
    }

    @Test
    void whatWentLiveUnderSomethingLoosenedIsToldToWhoMayReviewItAndWhoLoosenedIt() {
        told.loosened(PLACE, row, new Loosenings.Loosened("one approval less", "ines", 4, Rows.NOON));
        assertEquals("dora ines: path-board 1.4.2 in production is to be reviewed / It went live within a day of what "
                + "ines loosened: one approval less. Somebody else than ines looks at it within three days.", said());
    }
}

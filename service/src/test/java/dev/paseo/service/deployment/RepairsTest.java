package dev.paseo.service.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.host.HostReports;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Why hosts are not repaired, and a preview not removed. */
class RepairsTest {

    private static final Environments.Place PLACE = SomePlace.with(11, "path-board");

    private final Places places = mock(Places.class);
    private final Deployments deployments = mock(Deployments.class);
    private final Environments environments = mock(Environments.class);
    private final HostContents contents = mock(HostContents.class);
    private final Repairs repairs = new Repairs(places, environments,
            new HostStandings(deployments, mock(HostReports.class), contents, places, environments),
            mock(AuditTrail.class));

    @BeforeEach
    void oneHost() {
        Environments.PlaceHost host = mock(Environments.PlaceHost.class);
        when(host.name()).thenReturn("north-hut");
        when(environments.hosts(3)).thenReturn(List.of(host));
        when(places.requireLive(PLACE)).thenReturn(mock(Versions.Version.class));
    }

    /** Whatever is asked there is refused for this reason. */
    private void refusing(String reason) {
        doAnswer(call -> {
            Function<String, Refusal> refusal = call.getArgument(2);
            throw refusal.apply(reason);
        }).when(places).require(anyLong(), any(), any());
    }

    @Test
    void nothingIsRepairedWithoutWhatItNeeds() {
        Deployment live = mock(Deployment.class);
        when(deployments.find(11)).thenReturn(Optional.of(live));
        when(contents.lacks(any(), any(), any(), anyLong()))
                .thenReturn(Optional.of("north-hut has no value of BOARD_KEY"));
        assertEquals("Nothing was started: north-hut has no value of BOARD_KEY",
                Refused.by(Kind.CONFLICT, () -> repairs.repair(PLACE, "anna", List.of("north-hut"))));
        verify(places, never()).require(anyLong(), any(), any());
    }

    @Test
    void nothingIsRepairedWhereThePlaceSaysNo() {
        refusing("1.4.2 is being deployed there");
        assertEquals("Nothing was started: 1.4.2 is being deployed there",
                Refused.by(Kind.CONFLICT, () -> repairs.repair(PLACE, "anna", List.of("north-hut"))));
    }

    @Test
    void nothingIsRemovedWhereThePlaceSaysNo() {
        refusing("nothing is live there");
        assertEquals("It is not removed: nothing is live there",
                Refused.by(Kind.CONFLICT, () -> new Removals(places).begin(3, "the branch was deleted")));
    }
}

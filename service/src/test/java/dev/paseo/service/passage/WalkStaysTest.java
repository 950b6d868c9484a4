package dev.paseo.service.passage;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** A walk that stays says why, once for each reason, to whoever can mend it. */
class WalkStaysTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final Authorship authorship = mock(Authorship.class);
    private final Notices notices = mock(Notices.class);
    private final WalkStays stays = new WalkStays(database.mapper(WalkStayMapper.class), noon.changes, authorship,
            notices);
    private final long component = database.rows().component();
    private final Versions.Version version = mock(Versions.Version.class);

    @BeforeEach
    void annaWroteIt() {
        when(version.id()).thenReturn(database.rows().version(component, database.rows().line(component), 1));
        when(version.componentId()).thenReturn(component);
        when(version.component()).thenReturn("path-board");
        when(version.number()).thenReturn("1.4.2");
        when(version.commit()).thenReturn(Optional.of("c0ffee"));
        when(authorship.behind(anyLong(), any(), anyString()))
                .thenReturn(Optional.of(new Authorship.Behind(Set.of("anna"), Set.of())));
    }

    @Test
    void eachReasonIsToldOnce() {
        stays.stays(version, "staging", "test", "no host there");
        stays.stays(version, "staging", "test", "no host there");
        stays.stays(version, "staging", "test", "no secret there");
        ArgumentCaptor<Notices.Said> said = ArgumentCaptor.captor();
        verify(notices, times(2)).tell(eq(Set.of("anna")), said.capture());
        assertEquals("path-board 1.4.2 does not go on to staging", said.getValue().title());
        assertEquals("no secret there. When that is mended, it goes on by itself.", said.getValue().body());
        verify(notices, times(2)).tellPushers(eq(component), eq("c0ffee"), any());
        verify(notices, times(2)).tellAdministrators(any());
        assertEquals(List.of(new WalkStays.Stay(version.id(), "staging", "test", "no secret there")),
                stays.of(version.id()));
    }

    @Test
    void whoWroteAnUploadIsWhoIsStatedWithIt() {
        when(version.commit()).thenReturn(Optional.empty());
        when(authorship.stated(version.id())).thenReturn(new Authorship.Behind(Set.of("carl"), Set.of("x@y")));
        stays.stays(version, "staging", "", "no host there");
        verify(notices).tell(eq(Set.of("carl")), any());
    }

    @Test
    void whatEndsBeforeAnEnvironmentSaysSoInTheTrailAndStaysNoMore() {
        stays.stays(version, "staging", "test", "no host there");
        stays.ends(version, "staging", "1.4.3 is on its way there");
        assertEquals(List.of(), stays.of(version.id()));
        ArgumentCaptor<AuditTrail.Entry> entries = ArgumentCaptor.captor();
        verify(noon.audit, times(2)).record(entries.capture());
        assertEquals(List.of("walk stays", "walk ends"),
                entries.getAllValues().stream().map(AuditTrail.Entry::what).toList());
    }
}

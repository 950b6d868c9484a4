package dev.paseo.service.set;

import dev.paseo.service.change.Changes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.SetCourse;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.engine.LiveEvents;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class SetsTest {

    private final RealDatabase database = RealDatabase.get();
    private final SetMapper mapper = database.mapper(SetMapper.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final Versions versions = mock(Versions.class);
    private final Sets sets = new Sets(mapper, versions,
            new Changes(database.transactions(), clock, mock(AuditTrail.class), mock(LiveEvents.class)));
    private final Person somebody = new Person(database.rows().account(), "somebody", Set.of(), List.of());

    @BeforeEach
    void time() {
        when(clock.now()).thenReturn(Rows.NOON);
    }

    private Versions.Version version(String component) {
        long id = database.rows().component();
        Versions.Version sealed = mock(Versions.Version.class);
        when(sealed.id()).thenReturn(database.rows().version(id, database.rows().line(id), 1));
        when(sealed.component()).thenReturn(component);
        when(sealed.number()).thenReturn("1.0");
        return sealed;
    }

    private void refused(Refusal.Kind kind, String name, List<Versions.Version> members) {
        assertEquals(kind, assertThrows(Refusal.class, () -> sets.create(name, members, somebody)).kind());
    }

    @Test
    void aSetHasTwoOrMoreVersionsEachOfAnotherComponentAndAName() {
        Versions.Version one = version("daylight-api");
        Versions.Version other = version("path-board");
        refused(Refusal.Kind.INVALID, "Not A Name", List.of(one, other));
        refused(Refusal.Kind.INVALID, Rows.fresh("set"), List.of(one));
        refused(Refusal.Kind.INVALID, Rows.fresh("set"), List.of(one, version("daylight-api")));
    }

    @Test
    void aSetIsMadeOnceAndKeepsItsOrder() {
        String name = Rows.fresh("set");
        Versions.Version one = version("daylight-api");
        Versions.Version other = version("path-board");
        sets.create(name, List.of(other, one), somebody);
        assertEquals(List.of(other.id(), one.id()), mapper.members(sets.named(name).id()));
        refused(Refusal.Kind.CONFLICT, name, List.of(one, other));
        assertEquals(Refusal.Kind.NOT_FOUND,
                assertThrows(Refusal.class, () -> sets.named("no-such-set")).kind());
    }

    @Test
    void whatAMembersDeploymentIsReadAsIsWhatItsRowSays() {
        String name = Rows.fresh("set");
        sets.create(name, List.of(version("daylight-api"), version("path-board")), somebody);
        Rows.Place place = database.rows().place();
        SetMapper.NewPromotion row = new SetMapper.NewPromotion(sets.named(name).id(), place.environment(),
                somebody.id(), "together", Rows.NOON);
        mapper.promote(row);
        long version = database.rows().version(place.component(), database.rows().line(place.component()), 1);
        long deployment = database.rows().deployment(place.id(), version);
        Membership membership = new Membership(mapper, mock(Effects.class));
        membership.belongs(deployment, row.id);
        assertEquals(List.of(DeploymentStatus.WAITING),
                mapper.deployments(row.id).stream().map(SetMapper.MemberRow::status).toList());
        mapper.moved(row.id, SetCourse.Status.UNDOING, null);
        assertEquals(SetCourse.Status.UNDOING, mapper.promotion(row.id).status());
        membership.approved(row.id, "{\"daylight-api\":1}");
        membership.approved(row.id, "{\"daylight-api\":2}");
        assertEquals(Optional.of("{\"daylight-api\":1}"), mapper.subjects(row.id), "what was approved first counts");
    }
}

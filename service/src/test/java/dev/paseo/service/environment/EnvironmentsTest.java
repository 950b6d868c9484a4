package dev.paseo.service.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mockito.Mockito;

class EnvironmentsTest {

    private final RealDatabase database = RealDatabase.get();
    private final EnvironmentMapper mapper = database.mapper(EnvironmentMapper.class);
    private final Environments environments = new Environments(mapper, database.json(),
            Mockito.mock(ServiceClock.class), new StoredRules(database.json()));

    @Test
    void anEnvironmentOfAPlaceIsTheOneThatIsInForce() {
        Environments.Place place = environments.placeById(database.rows().place().id());
        Environments.Environment before = environments.byId(place.environmentId());
        assertEquals(before, environments.of(place), "from what was read before");
        database.change("update environment set zone = 'Europe/Rome' where id = ?", place.environmentId());
        assertEquals("Europe/Rome", environments.of(environments.placeById(place.id())).zone());
        database.change("update environment set rules_revision = rules_revision + 1 where id = ?",
                place.environmentId());
        assertEquals(before.rulesRevision() + 1, environments.of(environments.placeById(place.id())).rulesRevision());
    }

    @Test
    void whyNothingCanBeDeployedSomewhereIsSaidAndWhereItCanNothingIs() {
        Rows.Place place = database.rows().place();
        String component = database.name("component", place.component());
        String environment = database.name("environment", place.environment());
        assertEquals(Optional.empty(), environments.whyNoPlace(component, environment));
        String other = Rows.fresh("component");
        assertEquals(Optional.of(other + " has no place in " + environment
                + ": the environments file gives it no hosts there"), environments.whyNoPlace(other, environment));
        assertEquals(Optional.of("there is no environment " + environment + "x; did you mean " + environment + "?"),
                environments.whyNoPlace(component, environment + "x"));
        database.change("update place set retired_at = ? where id = ?", Rows.NOON, place.id());
        assertEquals(Optional.of(component + " in " + environment + " is retired"),
                environments.whyNoPlace(component, environment));
    }
}

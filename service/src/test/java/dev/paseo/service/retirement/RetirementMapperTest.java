package dev.paseo.service.retirement;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class RetirementMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final RetirementMapper mapper = database.mapper(RetirementMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);
    private final long deployment = database.rows().deployment(place.id(), version);

    @Test
    void whatIsUnderWayKeepsItFromBeingRetired() {
        assertEquals(List.of("deployment " + deployment + " is waiting"), mapper.deploymentsInto(place.id()));
        assertEquals(1, mapper.deploymentsOf(place.component()).size());
        database.change("update deployment set status = 'withdrawn' where id = ?", deployment);
        assertEquals(List.of(), mapper.deploymentsInto(place.id()));
    }

    @Test
    void whatIsLiveIsFoundByComponentAndByPlace() {
        database.change("update place set live_deployment_id = ? where id = ?", deployment, place.id());
        assertEquals(version, mapper.live(place.component(), null).getFirst().versionId());
        assertEquals(version, mapper.live(null, place.id()).getFirst().versionId());
        assertEquals(List.of(), mapper.live(null, place.id() + 1));
    }

    @Test
    void aHostHasWhatStaysAlone() {
        String host = database.name("host", database.rows().host(place.id()));
        assertEquals(1, mapper.placesOf(host).size());
        mapper.componentRetired(place.component(), NOW);
        assertEquals(List.of(), mapper.placesOf(host));
        mapper.componentRetired(place.component(), null);
        mapper.environmentRetired(place.environment(), NOW);
        assertEquals(List.of(), mapper.placesOf(host));
    }

    @Test
    void aRetiredAgentIsNotLetIn() {
        long agent = database.rows().agent();
        database.change("update agent set token_hash = ? where id = ?", database.rows().digest(), agent);
        mapper.agentRetired(agent, NOW);
        assertEquals(1, database.change("update agent set drained = true where id = ? and token_hash is null", agent));
    }

    @Test
    void whatIsRetiredIsListedUntilItIsBroughtBack() {
        String component = database.name("component", place.component());
        String environment = database.name("environment", place.environment());
        long host = database.rows().host(place.id());
        long agent = database.rows().agent();
        assertEquals(List.of(), listed(component, environment, host, agent));
        mapper.componentRetired(place.component(), NOW.plusSeconds(5));
        mapper.placeRetired(place.id(), NOW.plusSeconds(4));
        mapper.hostRetired(host, NOW.plusSeconds(3));
        mapper.agentRetired(agent, NOW.plusSeconds(2));
        mapper.environmentRetired(place.environment(), NOW.plusSeconds(1));
        assertEquals(List.of("component", "place", "host", "agent", "environment"),
                listed(component, environment, host, agent), "the newest first");
        mapper.componentRetired(place.component(), null);
        assertEquals(List.of("place", "host", "agent", "environment"), listed(component, environment, host, agent));
        database.change("insert into preview_template (environment_id, body, set_by, at) values (?, '{}', ?, ?)",
                place.environment(), database.rows().account(), NOW);
        assertEquals(List.of("place", "host", "agent", "preview-template"),
                listed(component, environment, host, agent));
    }

    private List<String> listed(String component, String environment, long host, long agent) {
        Set<String> names = Set.of(component, environment, database.name("host", host), database.name("agent", agent));
        return mapper.retired().stream().filter(row -> names.contains(row.name()))
                .map(RetirementMapper.RetiredRow::what).toList();
    }
}

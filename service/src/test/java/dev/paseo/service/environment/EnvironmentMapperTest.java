package dev.paseo.service.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class EnvironmentMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final EnvironmentMapper mapper = database.mapper(EnvironmentMapper.class);
    private final Rows.Place place = database.rows().place();

    @Test
    void aPlaceIsFoundByANameThatItsComponentHad() {
        String now = database.name("component", place.component());
        String before = Rows.fresh("before");
        database.insert("insert into former_name (name, component_id) values (?, ?)", before,
                place.component());
        String environment = database.name("environment", place.environment());
        assertEquals(place.id(), mapper.place(before, environment).orElseThrow().id());
        assertEquals(now, mapper.place(before, environment).orElseThrow().component());
        assertTrue(mapper.place(Rows.fresh("nobody"), environment).isEmpty());
    }

    @Test
    void hostsComeInTheirOrderAndAreCountedOnce() {
        mapper.addHost("first-" + place.id());
        mapper.addHost("other-" + place.id());
        mapper.placeHost(place.id(), "other-" + place.id(), 2, null, "b");
        mapper.placeHost(place.id(), "first-" + place.id(), 1, "http://127.0.0.1:1", "a");
        mapper.countHosts(place.environment());
        assertEquals(List.of("first-" + place.id(), "other-" + place.id()),
                mapper.hosts(place.id()).stream().map(EnvironmentMapper.HostRow::name).toList());
        assertEquals(2, mapper.byId(place.environment()).hosts());
        mapper.clearHosts(place.id());
        assertEquals(List.of(), mapper.hosts(place.id()));
    }

    @Test
    void aHostWithAnAgentOfItsOwnIsServedByNoOther() {
        long host = database.rows().host(place.id());
        long own = database.rows().agent();
        String other = database.name("agent", database.rows().agent());
        String name = mapper.hostName(host);
        assertEquals(1, mapper.serve(name, other));
        database.change("update agent set host_id = ? where id = ?", host, own);
        assertEquals(0, mapper.serve(name, other));
    }

    @Test
    void whatComesAndGoesIsNotInTheListOfAll() {
        String name = Rows.fresh("preview");
        mapper.addTemporary(name, "UTC", "{}");
        assertTrue(mapper.all().stream().noneMatch(row -> row.name().equals(name)));
        assertTrue(mapper.named(name).isPresent());
    }

    @Test
    void whatIsSetInAnEnvironmentIsToldWithItsHostsAndNothingThatIsRetired() {
        long account = database.rows().account();
        mapper.addSettings(place.id(), 1, "{\"format\":1}", account, NOW);
        mapper.addSettings(place.id(), 2, "{\"format\":2}", account, NOW);
        String component = database.name("component", place.component());
        long host = database.rows().host(place.id());
        String agent = database.name("agent", database.rows().agent());
        mapper.serve(mapper.hostName(host), agent);
        assertEquals(List.of(new EnvironmentMapper.PlaceSettingsRow(place.id(), component, "{\"format\":1}")),
                mapper.settingsIn(place.environment()));
        assertEquals(List.of(new EnvironmentMapper.ServedRow(place.id(), mapper.hostName(host), agent)),
                mapper.hostsIn(place.environment()));
        database.change("update component set retired_at = ? where id = ?", NOW, place.component());
        assertEquals(List.of(), mapper.settingsIn(place.environment()));
    }
}

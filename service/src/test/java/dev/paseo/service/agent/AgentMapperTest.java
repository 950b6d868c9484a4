package dev.paseo.service.agent;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class AgentMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final AgentMapper mapper = database.mapper(AgentMapper.class);
    private final String name = Rows.fresh("agent");
    private final String code = database.rows().digest();

    private int enrol(String code, String token, Instant at) {
        return mapper.enrol(code, token, at);
    }

    @Test
    void aCodeEnrolsOnce() throws Exception {
        mapper.invite(name, null, "[]", false, code, NOW.plusSeconds(60));
        List<Integer> enrolled = RealDatabase.atOnce(12, () -> enrol(code, database.rows().digest(), NOW));
        assertEquals(1, enrolled.stream().mapToInt(Integer::intValue).sum());
    }

    @Test
    void aCodeThatIsLateEnrolsNobody() {
        mapper.invite(name, null, "[]", false, code, NOW.plusSeconds(60));
        assertEquals(0, enrol(code, database.rows().digest(), NOW.plusSeconds(60)));
    }

    @Test
    void aSecretIsRenewedOnlyWhereThatIsWantedOrItIsOld() {
        String token = database.rows().digest();
        String next = database.rows().digest();
        mapper.invite(name, null, "[]", false, code, NOW.plusSeconds(60));
        enrol(code, token, NOW);
        long id = mapper.ofToken(token).orElseThrow().id();
        assertEquals(0, mapper.renew(id, next, NOW.plusSeconds(60), NOW), "nobody wants it, and it is new");
        assertEquals(1, mapper.renew(id, next, NOW.plusSeconds(60), NOW.plusSeconds(1)), "it is old");
        String third = database.rows().digest();
        mapper.wantRenewal(name);
        assertEquals(1, mapper.renew(id, third, NOW.plusSeconds(60), NOW));
        String renewed = database.rows().digest();
        assertEquals(1, enrol(third, renewed, NOW));
        assertTrue(mapper.ofToken(token).isEmpty(), "the secret before is worth nothing");
    }
}

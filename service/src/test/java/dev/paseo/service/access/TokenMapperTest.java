package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class TokenMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final TokenMapper mapper = database.mapper(TokenMapper.class);
    private final long account = database.rows().account();
    private final String hash = database.rows().digest();

    @Test
    void aTokenStandsForItsOwnerUntilItsTime() {
        mapper.add(hash, account, "script", null, null, NOW, NOW.plusSeconds(60));
        assertEquals(account, mapper.bearer(hash, NOW.plusSeconds(59)).orElseThrow().id());
        assertTrue(mapper.bearer(hash, NOW.plusSeconds(60)).isEmpty());
    }

    @Test
    void ofManyWhoRevokeATokenOneDid() throws Exception {
        mapper.add(hash, account, "script", null, null, NOW, NOW.plusSeconds(60));
        List<Integer> revoked = RealDatabase.atOnce(12, () -> mapper.revokeByHash(hash, "ines", NOW));
        assertEquals(1, revoked.stream().mapToInt(Integer::intValue).sum());
        assertTrue(mapper.bearer(hash, NOW).isEmpty());
        assertEquals(List.of(), mapper.valid(account));
    }

    @Test
    void nobodyRevokesTheTokenOfAnotherByItsNumber() {
        mapper.add(hash, account, "script", "start-run", null, NOW, NOW.plusSeconds(60));
        TokenMapper.TokenRow row = mapper.of(account, NOW).getFirst();
        assertEquals("start-run", row.may());
        assertEquals(0, mapper.revoke(row.id(), database.rows().account(), "mallory", NOW));
        assertEquals(1, mapper.revoke(row.id(), account, "ines", NOW));
    }
}

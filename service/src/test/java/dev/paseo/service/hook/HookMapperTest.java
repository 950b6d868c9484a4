package dev.paseo.service.hook;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class HookMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final HookMapper mapper = database.mapper(HookMapper.class);
    private final long component = database.rows().component();

    @Test
    void aDeliveryIsTakenOnceHoweverManyBringIt() throws Exception {
        List<Integer> taken = RealDatabase.atOnce(12, () -> mapper.deliver(component, "d-1", Rows.NOON));
        assertEquals(1, taken.stream().mapToInt(Integer::intValue).sum());
        assertEquals(1, mapper.deliver(database.rows().component(), "d-1", Rows.NOON), "of another component");
        assertEquals(1, mapper.deliver(component, "d-2", Rows.NOON));
    }

    @Test
    void aMappingIsKeptInPlaceOfTheOneBefore() {
        assertEquals(Optional.empty(), mapper.mapping(component));
        mapper.keepMapping(component, "{\"branch\": \"/ref\"}");
        mapper.keepMapping(component, "{\"branch\": \"/branch\"}");
        assertEquals(Optional.of("{\"branch\": \"/branch\"}"), mapper.mapping(component));
    }
}

package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.gate.GateFacts.Stretch;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class StretchesTest {

    private final RealDatabase database = RealDatabase.get();
    private final Rows.Place place = database.rows().place();
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);
    private final StretchMapper mapper = database.mapper(StretchMapper.class);
    private final Stretches stretches = new Stretches(mapper, new AtNoon().clock);
    private final String environment = database.name("environment", place.environment());

    @Test
    void ofEachEnvironmentInTheirOrderAndOfWhereItNeverWasNone() {
        mapper.begin(place.id(), version, Rows.NOON.minusSeconds(90));
        assertEquals(List.of(new Stretch("elsewhere", Duration.ZERO, Optional.empty()),
                new Stretch(environment, Duration.ZERO, Optional.of(Rows.NOON.minusSeconds(90)))),
                stretches.in(List.of("elsewhere", environment), version));
        assertEquals(List.of(), stretches.in(List.of(), version));
    }

    @Test
    void whatIsNotLiveAnyMoreHasTheLongestThatItHad() {
        mapper.begin(place.id(), version, Rows.NOON.minusSeconds(90));
        stretches.end(place.id());
        assertEquals(List.of(new Stretch(environment, Duration.ofSeconds(90), Optional.empty())),
                stretches.in(List.of(environment), version));
    }
}

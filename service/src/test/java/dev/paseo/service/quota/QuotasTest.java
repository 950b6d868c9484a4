package dev.paseo.service.quota;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.ObjectProvider;
import dev.paseo.core.text.Size;

class QuotasTest {

    private final RealDatabase database = RealDatabase.get();
    private final Settings settings = mock(Settings.class);
    private final Quotas.Hearer hearer = mock(Quotas.Hearer.class);
    private final long component = database.rows().component();

    private Quotas quotas() {
        when(settings.keptPerComponent()).thenReturn(new Size(1000));
        return new Quotas(database.mapper(QuotaMapper.class), database.transactions(), new ObjectProvider<>() {
            @Override
            public Stream<Quotas.Hearer> stream() {
                return Stream.of(hearer);
            }
        }, settings);
    }

    @Test
    void whatThereIsNoRoomForIsRefused() {
        Quotas quotas = quotas();
        quotas.kept(component, 990);
        assertEquals(10, quotas.room(component, 10));
        assertTrue(Refused.by(Kind.TOO_LARGE, () -> quotas.room(component, 11))
                .contains(database.name("component", component)));
    }

    @Test
    void theLargestComeFirst() {
        Quotas quotas = quotas();
        long other = database.rows().component();
        quotas.kept(component, 1_000_000_000_000L);
        quotas.kept(other, 2_000_000_000_000L);
        quotas.writeDown();
        assertEquals(List.of(database.name("component", other), database.name("component", component)),
                List.copyOf(quotas.largest(2).keySet()));
    }

    @Test
    void peopleHearOnceThatItIsNearlyAll() {
        Quotas quotas = quotas();
        quotas.kept(component, 950);
        quotas.writeDown();
        quotas.kept(component, 1);
        quotas.writeDown();
        verify(hearer).nearlyFull(eq(database.name("component", component)), anyString());
        assertEquals(951, quotas.kept(component));
    }
}

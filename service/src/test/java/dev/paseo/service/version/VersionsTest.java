package dev.paseo.service.version;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class VersionsTest {

    private final VersionMapper mapper = mock(VersionMapper.class);
    private final Versions versions = new Versions(mapper, RealDatabase.get().json(), mock(KeptBytes.class),
            mock(Versions.Aftermath.class));

    @Test
    void whereThereIsNoneOfThisNumberTheNewestIsNamed() {
        when(mapper.numbered(7, "1.5")).thenReturn(Optional.empty());
        when(mapper.alsoNamed(7, "1.5")).thenReturn(Optional.empty());
        when(mapper.numbers(7)).thenReturn(List.of("1.4.2", "1.4.1"));
        assertEquals("path-board has no version 1.5; the newest is 1.4.2",
                Refused.by(Kind.NOT_FOUND, () -> versions.numbered(7, "path-board", "1.5")));
        when(mapper.numbers(7)).thenReturn(List.of());
        assertEquals("path-board has no version 1.5",
                Refused.by(Kind.NOT_FOUND, () -> versions.numbered(7, "path-board", "1.5")));
    }
}

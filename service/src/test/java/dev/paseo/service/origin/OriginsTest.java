package dev.paseo.service.origin;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.database.Rows;
import dev.paseo.service.origin.OriginMapper.FoundRow;
import dev.paseo.service.origin.OriginMapper.MadeRow;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class OriginsTest {

    private final OriginMapper mapper = mock(OriginMapper.class);
    private final Origins origins = new Origins(mapper, mock(StatementMapper.class), mock(Statements.class));

    private static Stream<FoundRow> found(String component) {
        return IntStream.range(0, 30).mapToObj(at -> new FoundRow(at, component, "1." + at, "app", "app.jar", 7,
                "main", null, null, null, Rows.NOON, null, null, null));
    }

    @Test
    void whatOneMayNotBeToldOfTakesNoPlaceFromWhatOneMay() {
        when(mapper.versions("d")).thenReturn(Stream.concat(found("hidden"), found("lamp")).toList());
        when(mapper.made("d")).thenReturn(Stream.of("hidden", "kite").flatMap(component -> IntStream.range(0, 30)
                .mapToObj(run -> new MadeRow(component, run, "app", "app.jar", Rows.NOON))).toList());
        Origins.OriginView view = origins.of("d", component -> !component.equals("hidden"));
        assertEquals(20, view.versions().size());
        assertEquals(List.of("lamp"), view.versions().stream().map(Origins.SealedFileView::component).distinct()
                .toList());
        assertEquals(20, view.made().size());
        assertEquals(List.of("kite"), view.made().stream().map(Origins.MadeFileView::component).distinct().toList());
    }
}

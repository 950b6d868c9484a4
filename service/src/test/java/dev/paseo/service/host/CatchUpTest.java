package dev.paseo.service.host;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.host.HostReportMapper.PlaceHostRow;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;

class CatchUpTest {

    private final HostReportMapper mapper = mock(HostReportMapper.class);
    private final Places places = mock(Places.class);
    private final CatchUp catchUp = new CatchUp(mapper, mock(Deployments.class), places, new AtNoon().changes,
            mock(HostContents.class));
    private final List<Long> tried = new ArrayList<>();

    @Test
    void thoseThatCannotBeBroughtToItKeepNobodyElseFromIt() {
        when(mapper.strangers(any())).thenReturn(LongStream.range(0, 300)
                .mapToObj(place -> new PlaceHostRow(place, "lamp", "test", "shed-" + place)).toList());
        doAnswer(call -> {
            tried.add(call.getArgument(0));
            throw Refusal.conflict("it lacks LAMP_KEY");
        }).when(places).require(anyLong(), any(), any());
        catchUp.sweep();
        assertEquals(200, tried.size());
        catchUp.sweep();
        assertEquals(300, Set.copyOf(tried).size(), "the others had their turn");
        catchUp.sweep();
        assertEquals(300, tried.size(), "each is tried again after a while, not with each look");
    }
}

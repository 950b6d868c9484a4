package dev.paseo.service.waiting;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.service.component.Components;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.waiting.MissingGrants.GrantView;
import dev.paseo.service.waiting.WaitingMapper.HeadRow;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class MissingGrantsTest {

    private static final String FILE = """
            paseo: 1
            component: ridge-map
            stages:
              build:
                steps: [./build]
                secrets: [SIGNING_KEY, STORE_KEY]
            deployment:
              secrets: [DATA_KEY, STORE_KEY]
              on-each-host: [./install]
            """;

    private final WaitingMapper mapper = mock(WaitingMapper.class);
    private final Components components = mock(Components.class);
    private final Secrets secrets = mock(Secrets.class);
    private final MissingGrants missing = new MissingGrants(mapper, components, secrets);

    private static FileInForce file(String text) {
        PipelineText read = PipelineText.read(text, PieceSource.NONE);
        assertEquals(List.of(), read.reading().problems());
        return new FileInForce(1, read.reading().value(), List.of(), List.of());
    }

    @Test
    void whatAFileNamesAndItsComponentLacksIsTold() {
        when(mapper.heads()).thenReturn(List.of(new HeadRow(7, "ridge-map", 70)));
        when(components.file(70)).thenReturn(file(FILE));
        when(secrets.given()).thenReturn(Map.of(7L, Map.of("SIGNING_KEY", false, "STORE_KEY", true)));
        assertEquals(List.of(new GrantView("ridge-map", "SIGNING_KEY", true),
                new GrantView("ridge-map", "DATA_KEY", false)), missing.all());
        when(secrets.given()).thenReturn(Map.of(7L, Map.of("STORE_KEY", true, "DATA_KEY", false)));
        assertEquals(List.of(new GrantView("ridge-map", "SIGNING_KEY", false)), missing.all());
        when(secrets.given()).thenReturn(Map.of());
        assertEquals(List.of("SIGNING_KEY", "STORE_KEY", "DATA_KEY"),
                missing.all().stream().map(GrantView::secret).toList(), "each once, though two parts name one");
    }

    /** With a thousand components, whoever may set secrets would else wait for a thousand files to be read. */
    @Test
    void aFileIsReadOnceAndNoComponentIsAskedOfByItself() {
        when(mapper.heads()).thenReturn(List.of(new HeadRow(7, "ridge-map", 70), new HeadRow(8, "broken", 80)));
        when(components.file(70))
                .thenReturn(file("paseo: 1\ncomponent: ridge-map\nstages: {build: {steps: [./build]}}\n"));
        when(components.file(80)).thenReturn(new FileInForce(80, Optional.empty(), List.of(), List.of()));
        assertEquals(List.of(), missing.all());
        assertEquals(List.of(), missing.all());
        verify(components, times(1)).file(70);
        verify(components, times(1)).file(80);
        verify(secrets, never()).given(anyLong());
    }
}

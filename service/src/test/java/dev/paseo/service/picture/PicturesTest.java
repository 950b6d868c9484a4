package dev.paseo.service.picture;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;

class PicturesTest {

    private final AtNoon noon = new AtNoon();
    private final KeptBytes bytes = mock(KeptBytes.class);
    private final Pictures pictures = new Pictures(bytes, noon.clock);

    private String keep(byte[] picture) throws IOException {
        when(bytes.keep(any(), anyLong(), any())).thenReturn(new ByteStore.StoredBytes("d", 1));
        return pictures.keep(new ByteArrayInputStream(picture), 7);
    }

    @Test
    void aPictureIsWhatItsBytesSay() throws IOException {
        assertEquals("d", keep(new byte[]{(byte) 0x89, 'P', 'N', 'G', 0}));
        for (byte[] wrong : List.of(new byte[0], "<svg onload=x>".getBytes(StandardCharsets.UTF_8),
                new byte[]{(byte) 0x89, 'P', 'N', 'G'})) {
            Refused.field("", () -> keep(wrong));
        }
        Refused.by(Kind.TOO_LARGE, () -> keep(new byte[5_000_001]));
    }

    @Test
    void otherBytesAreNoPictures() {
        assertEquals("There is no picture 0123", Refused.by(Kind.NOT_FOUND, () -> pictures.read("0123")));
    }
}

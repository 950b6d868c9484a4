package dev.paseo.service.arrival;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PartsTest {

    private static final UploadMapper.FileRow FILE = new UploadMapper.FileRow("artifact", "app", "app.txt", 6, "d",
            false);

    @TempDir
    Path folder;
    private Parts parts;

    @BeforeEach
    void open() {
        Settings settings = mock(Settings.class);
        when(settings.data()).thenReturn(folder);
        parts = new Parts(settings);
    }

    private static InputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void aPieceGoesWhereTheLastOneEnded() {
        assertEquals(3, parts.append(1, FILE, 0, bytes("abc")));
        assertEquals("3 bytes of app have arrived; continue from there, not from 1",
                Refused.by(Kind.CONFLICT, () -> parts.append(1, FILE, 1, bytes("c"))));
        assertEquals("app was announced with 6 bytes, and more are being sent",
                Refused.by(Kind.TOO_LARGE, () -> parts.append(1, FILE, 3, bytes("defg"))));
        assertEquals(6, parts.append(1, FILE, 3, bytes("def")));
    }

    @Test
    void oneIsSentByOneRequestAtATime() {
        InputStream meanwhile = new InputStream() {
            private boolean asked;

            @Override
            public int read() throws IOException {
                if (!asked) {
                    asked = true;
                    assertEquals("app is being sent by another request at this moment",
                            Refused.by(Kind.CONFLICT, () -> parts.append(2, FILE, 0, bytes("x"))));
                }
                return -1;
            }
        };
        assertEquals(0, parts.append(2, FILE, 0, meanwhile));
    }
}

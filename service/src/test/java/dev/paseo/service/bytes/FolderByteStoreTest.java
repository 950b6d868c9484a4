package dev.paseo.service.bytes;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import dev.paseo.core.text.Size;

class FolderByteStoreTest {

    private static final byte[] LIGHT = "light".getBytes(StandardCharsets.UTF_8);
    private static final String DIGEST = "5d6f3bf67ae52b6ab1a3cd8be79b2e6ba5e1b0da8ea1b1a3c6c7ab4c8ff4a8f5";

    @TempDir
    Path folder;
    private FolderByteStore store;

    @BeforeEach
    void open() throws IOException {
        store = new FolderByteStore(new Settings(folder, List.of(), List.of(), List.of(), List.of(), 60,
                Duration.ofMinutes(5), Duration.ofSeconds(20), 1000, 1000, Size.of("1GB"), List.of(),
                "http://127.0.0.1", "paseo@localhost", false));
    }

    private ByteStore.StoredBytes keep() throws IOException {
        return store.keep(new ByteArrayInputStream(LIGHT), 100);
    }

    @Test
    void whatIsKeptIsFoundByItsDigestAndKeptOnce() throws IOException {
        ByteStore.StoredBytes kept = keep();
        assertEquals(kept, keep());
        assertEquals(LIGHT.length, kept.size());
        try (InputStream in = store.open(kept.digest())) {
            assertArrayEquals(LIGHT, in.readAllBytes());
        }
        assertEquals(1, files("bytes"));
        assertEquals(0, files("scratch"));
    }

    private long files(String name) throws IOException {
        try (Stream<Path> paths = Files.walk(folder.resolve(name))) {
            return paths.filter(Files::isRegularFile).count();
        }
    }

    @Test
    void aDamagedFileIsFoundWhenItIsRead() throws IOException {
        String digest = keep().digest();
        Files.writeString(folder.resolve("bytes").resolve(digest.substring(0, 2)).resolve(digest.substring(2)), "tidy");
        try (InputStream in = store.open(digest)) {
            assertThrows(IOException.class, in::readAllBytes);
        }
    }

    @Test
    void anArrivalThatIsCutOffOrTooLargeLeavesNothing() throws IOException {
        InputStream cut = new InputStream() {
            private int left = 10_000;

            @Override
            public int read() throws IOException {
                if (left-- <= 0) {
                    throw new IOException("connection lost");
                }
                return 'x';
            }
        };
        assertThrows(IOException.class, () -> store.keep(cut, 1 << 20));
        assertEquals("At most 3 bytes are accepted",
                Refused.by(Refusal.Kind.TOO_LARGE, () -> store.keep(new ByteArrayInputStream(LIGHT), 3)));
        assertEquals("No bytes with the digest " + DIGEST + " are kept",
                Refused.by(Refusal.Kind.NOT_FOUND, () -> store.openUnchecked(DIGEST)));
        assertEquals("A digest has 64 hexadecimal digits, got “../up”",
                Refused.field("/digest", () -> store.openUnchecked("../up")));
        assertEquals(0, files("bytes"));
        assertEquals(0, files("scratch"));
    }

    @Test
    void aNameThatIsNoDigestReachesNoFile() {
        assertThrows(Refusal.class, () -> store.open("../../etc/passwd"));
        assertThrows(Refusal.class, () -> store.open(DIGEST));
    }
}

package dev.paseo.service.bytes;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import org.junit.jupiter.api.Test;

class KeptBytesTest {

    private static final String WANTED = "a".repeat(64);
    private static final String FOUND = "b".repeat(64);

    private final ByteStore store = mock(ByteStore.class);
    private final Damage damage = mock(Damage.class);
    private final KeptBytes bytes = new KeptBytes(store, mock(ByteMapper.class), damage);
    private final DamagedBytes damaged = new DamagedBytes(WANTED, FOUND);
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    @Test
    void allOfWhatIsRightIsCopied() throws IOException {
        when(store.open(WANTED)).thenReturn(new ByteArrayInputStream(new byte[200_000]));
        bytes.copy(WANTED, out);
        assertEquals(200_000, out.size());
    }

    @Test
    void damageIsToldAndReportedAndTheLastBytesAreHeldBack() throws IOException {
        when(store.open(WANTED)).thenReturn(new InputStream() {
            private int left = 100_000;

            @Override
            public int read() throws IOException {
                if (left-- == 0) {
                    throw damaged;
                }
                return 1;
            }

            @Override
            public int read(byte[] to, int from, int most) throws IOException {
                if (left == 0) {
                    throw damaged;
                }
                int read = Math.min(left, most);
                left -= read;
                return read;
            }
        });
        assertEquals("The kept bytes are damaged: wanted " + WANTED + ", found " + FOUND
                + ". Administrators have been told.", Refused.by(Kind.DAMAGED, () -> bytes.copy(WANTED, out)));
        assertEquals(0, out.size(), "what went out is cut short");
        verify(damage).found(damaged);
    }
}

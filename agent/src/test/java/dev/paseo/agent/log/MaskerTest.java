package dev.paseo.agent.log;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MaskerTest {

    private static final String SECRET = "fern&elk/7781+path";
    private final Masker masker = new Masker(List.of(SECRET));

    @Test
    void theSecretItselfIsHidden() {
        assertEquals("key=••••••;", masker.mask("key=" + SECRET + ";"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "a", "ab", "user:", "a longer prefix "})
    void soIsItsBase64WhereverItStands(String prefix) {
        String encoded = Base64.getEncoder().encodeToString((prefix + SECRET + "!tail").getBytes(StandardCharsets.UTF_8));
        String inner = Base64.getEncoder().encodeToString(SECRET.getBytes(StandardCharsets.UTF_8)).substring(4, 16);
        assertFalse(masker.mask(encoded).contains(inner));
        assertFalse(new String(Base64.getDecoder().decode(pad(masker.mask(encoded).replace("•", ""))), StandardCharsets.ISO_8859_1).contains("7781"));
    }

    private static String pad(String base64) {
        String plain = base64.replaceAll("=+$", "");
        return plain.substring(0, plain.length() / 4 * 4);
    }

    @Test
    void soAreHexadecimalAndPercentEncoding() {
        byte[] bytes = SECRET.getBytes(StandardCharsets.UTF_8);
        assertEquals("••••••", masker.mask(HexFormat.of().formatHex(bytes)));
        assertEquals("••••••", masker.mask(HexFormat.of().withUpperCase().formatHex(bytes)));
        assertEquals("••••••", masker.mask(URLEncoder.encode(SECRET, StandardCharsets.UTF_8)));
    }

    @Test
    void soIsEachLineOfASecretOfSeveralLines() {
        Masker lines = new Masker(List.of("-----BEGIN-----\nc2Vjb25kLWxpbmU=\n-----END-----"));
        assertEquals("  ••••••", lines.mask("  c2Vjb25kLWxpbmU="));
    }

    @Test
    void aLineIsNeverCutThroughASecret() {
        String line = "x".repeat(90) + SECRET + "y".repeat(20);
        assertEquals(90, masker.cut(line, 100));
        assertEquals(50, masker.cut(line, 50));
    }

    @Test
    void soIsASecretThatIsSpreadOverLines() {
        assertEquals(List.of("a ••••••", "••••••", "•••••• b"), masker.mask(List.of("a fern&e", "lk/77", "81+path b")));
        assertEquals(List.of("nothing", "here"), masker.mask(List.of("nothing", "here")));
    }

    @Test
    void linesThatMayBeginASecretWaitForTheNext() {
        assertEquals(4, masker.settled("one\ntwo fern&\n"));
        assertEquals(0, masker.settled("fern\n&elk\n"));
        assertEquals(8, masker.settled("one\ntwo\n"));
    }
}

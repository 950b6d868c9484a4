package dev.paseo.agent.log;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
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
        String encoded = Base64.getEncoder()
                .encodeToString((prefix + SECRET + "!tail").getBytes(StandardCharsets.UTF_8));
        String inner = Base64.getEncoder().encodeToString(SECRET.getBytes(StandardCharsets.UTF_8)).substring(4, 16);
        assertFalse(masker.mask(encoded).contains(inner));
        assertFalse(new String(Base64.getDecoder().decode(pad(masker.mask(encoded).replace("•", ""))),
                StandardCharsets.ISO_8859_1).contains("7781"));
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

    /** How a program may write a secret → of which nothing may be left. */
    static Stream<String> forms() {
        byte[] bytes = SECRET.getBytes(StandardCharsets.UTF_8);
        String base64 = Base64.getEncoder().encodeToString(bytes);
        return Stream.of("\"" + SECRET.replace("/", "\\/") + "\"", "<b>" + SECRET.replace("&", "&amp;") + "</b>",
                URLEncoder.encode(SECRET, StandardCharsets.UTF_8).toLowerCase(java.util.Locale.ROOT),
                "%" + HexFormat.ofDelimiter("%").formatHex(bytes), HexFormat.ofDelimiter(":").formatHex(bytes),
                HexFormat.ofDelimiter(" ").withUpperCase().formatHex(bytes),
                HexFormat.ofDelimiter("-").formatHex(bytes), "MZSXE3RGMVWGWLZXG44DCK3QMF2GQ===",
                Base64.getEncoder().encodeToString(base64.getBytes(StandardCharsets.UTF_8)),
                Base64.getEncoder().encodeToString(("x" + base64).getBytes(StandardCharsets.UTF_8)));
    }

    @ParameterizedTest
    @MethodSource("forms")
    void soAreTheFormsThatProgramsWrite(String form) {
        String masked = masker.mask("said " + form + " today");
        assertTrue(masked.contains("••••••"), masked);
        for (int at = 0; at + 6 <= form.length() - 4; at++) {
            String piece = form.substring(at, at + 6);
            assertFalse(at > 4 && masked.contains(piece), () -> piece + " is left of " + form + " in " + masked);
        }
    }

    /** Binary and in parts: everything that is no secret stays as it is, byte for byte. */
    @Test
    void aFileIsCopiedWithoutItsSecrets(@TempDir Path folder) throws IOException {
        byte[] noise = new byte[3 << 20];
        new java.util.Random(7).nextBytes(noise);
        ByteArrayOutputStream whole = new ByteArrayOutputStream();
        whole.write(noise);
        whole.write("grün §cret".getBytes(StandardCharsets.UTF_8));
        whole.write(noise, 0, (1 << 20) - 20);
        whole.write(SECRET.getBytes(StandardCharsets.UTF_8));
        whole.write(noise, 0, 5);
        Files.write(folder.resolve("from"), whole.toByteArray());
        Masker.ofBytes(List.of(SECRET, "grün §cret")).copy(folder.resolve("from"), folder.resolve("to"));
        ByteArrayOutputStream wanted = new ByteArrayOutputStream();
        wanted.write(noise);
        wanted.write("••••••".getBytes(StandardCharsets.UTF_8));
        wanted.write(noise, 0, (1 << 20) - 20);
        wanted.write("••••••".getBytes(StandardCharsets.UTF_8));
        wanted.write(noise, 0, 5);
        assertArrayEquals(wanted.toByteArray(), Files.readAllBytes(folder.resolve("to")));
    }

    /** However short it is, and wherever the secret stands: nothing of it is left. */
    @Test
    void aShortFileIsCopiedWithoutItsSecretsToo(@TempDir Path folder) throws IOException {
        for (int before = 0; before < 400; before += 7) {
            for (int after = 0; after < 400; after += 13) {
                Files.writeString(folder.resolve("from"), "a".repeat(before) + SECRET + "b".repeat(after));
                Masker.ofBytes(List.of(SECRET)).copy(folder.resolve("from"), folder.resolve("to"));
                assertEquals("a".repeat(before) + "••••••" + "b".repeat(after), Files.readString(folder.resolve("to")));
            }
        }
    }

    @Test
    void soIsASecretThatASpaceTearsApart() {
        assertEquals(List.of("•••••• ••••••!"), masker.mask(List.of("fern&elk /7781+path!")));
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

package dev.paseo.cli.output;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What others wrote does not steer the terminal of who reads it. */
class PlainTest {

    static Stream<Arguments> texts() {
        return Stream.of(
                Arguments.of("a line\n\tanother, in öresund 明石 🚶", "a line\n\tanother, in öresund 明石 🚶"),
                Arguments.of(new Ink(true).good("passed") + " " + new Ink(true).need("asked"),
                        "\u001b[32mpassed\u001b[0m \u001b[35masked\u001b[0m"),
                Arguments.of("\u001b]0;another title\u0007", "·]0;another title·"),
                Arguments.of("\u001b[2J\u001b[H", "·[2J·[H"),
                Arguments.of("hidden \u001b[8mtext", "hidden ·[8mtext"),
                Arguments.of("over\rwritten, rub\bbed, bell \u0007, c1 \u009b31m",
                        "over·written, rub·bed, bell ·, c1 ·31m"));
    }

    @ParameterizedTest
    @MethodSource("texts")
    void onlyOwnColoursAndLineEndsPass(String written, String shown) {
        assertEquals(shown, Plain.plain(written));
    }

    @Test
    void whateverWayItIsPrinted() {
        StringWriter out = new StringWriter();
        PrintWriter writer = Plain.writer(out);
        writer.print("a\u001bb");
        writer.printf("%s", "\u009b");
        writer.write('\u0007');
        writer.println();
        writer.flush();
        assertEquals("a·b··" + System.lineSeparator(), out.toString());
    }
}

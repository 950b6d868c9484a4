package dev.paseo.agent.log;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.api.agent.LogLine;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class OutputReaderTest {

    @TempDir
    Path folder;

    private List<String> read(byte[] output, int part, Masker masker) throws IOException {
        Path file = folder.resolve("output");
        Files.write(file, output);
        OutputReader reader = new OutputReader(file, 1, masker);
        List<String> lines = new ArrayList<>();
        for (List<LogLine> more = reader.read(part, true); !more.isEmpty(); more = reader.read(part, true)) {
            more.forEach(line -> lines.add(line.text()));
        }
        return lines;
    }

    @Test
    void linesAreTheSameHoweverTheyAreReadInParts() throws IOException {
        Random random = new Random(7);
        StringBuilder text = new StringBuilder();
        for (int line = 0; line < 200; line++) {
            text.append("høgvatn €𝄞 ".repeat(random.nextInt(4))).append(line).append(line % 7 == 0 ? "\r\n" : "\n");
        }
        text.append("no end");
        byte[] bytes = text.toString().getBytes(StandardCharsets.UTF_8);
        List<String> whole = read(bytes, 1 << 20, new Masker(List.of()));
        assertEquals(201, whole.size());
        assertEquals("no end", whole.getLast());
        for (int part : new int[]{1, 2, 3, 7, 64, 1000}) {
            assertEquals(whole, read(bytes, part, new Masker(List.of())), "in parts of " + part);
        }
    }

    @Test
    void aVeryLongLineIsCutAndASecretInItIsHiddenWhereverTheCutFalls() throws IOException {
        String secret = "fern-and-cod-7781";
        String line = ("z".repeat(OutputReader.LONGEST_LINE - 9) + secret).repeat(3);
        List<String> lines = read(line.getBytes(StandardCharsets.UTF_8), 4096, new Masker(List.of(secret)));
        assertTrue(lines.size() >= 3);
        String joined = String.join("", lines);
        assertTrue(!joined.contains("fern") && !joined.contains("7781"), "a part of the secret is left");
    }

    @Test
    void binaryOutputIsReadAsReplacementSigns() throws IOException {
        assertEquals(List.of("a\uFFFD\uFFFDb"),
                read(new byte[]{'a', (byte) 0xff, (byte) 0xfe, 'b', '\n'}, 100, new Masker(List.of())));
    }
}

package dev.paseo.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DraftCommandTest {

    @TempDir
    Path folder;

    private int code;

    @BeforeEach
    void aMakefile() throws IOException {
        Files.writeString(folder.resolve("Makefile"), "all:\n\ttrue\n");
    }

    private String draft(String... arguments) {
        StringWriter out = new StringWriter();
        PrintWriter writer = new PrintWriter(out);
        String[] all = Stream.concat(Stream.of("draft", folder.toString(), "--component", "board"),
                Stream.of(arguments)).toArray(String[]::new);
        code = Paseo.run(new Context(writer, InputStream.nullInputStream(), Map.of(), false), writer, all);
        writer.flush();
        return out.toString();
    }

    @Test
    void whatIsAskedIsListedWithWhatHolds() {
        String told = draft("--questions", "--answer", "artifact=out/board");
        assertEquals(0, code);
        assertTrue(told.lines().anyMatch(line -> line.matches("artifact +out/board +Which file does make leave.*")),
                told);
        assertTrue(
                told.lines().anyMatch(line -> line.matches("deployed +service +How is it brought to a host\\? One of "
                        + "service, none")),
                told);
    }

    @Test
    void answersComeFromAFileAndFromTheLine() throws IOException {
        Path answers = Files.writeString(folder.resolve("answers.yaml"),
                "artifact: out/board\nrestart: ''\nenvironments: test\n");
        String text = draft("--answers", answers.toString(), "--answer", "environments=test, showroom");
        assertEquals(0, code, text);
        assertTrue(text.contains("keep: {app: out/board}") && text.contains("  - showroom: on-request"), text);
        assertTrue(draft("--answers", Files.writeString(answers, "artifact: [x").toString())
                .contains("a bracket [ is not closed"));
        assertEquals(2, code);
    }

    @Test
    void aDraftIsWrittenIntoANewFileAlone() throws IOException {
        Path into = folder.resolve("draft.yaml");
        assertTrue(
                draft("--into", into.toString(), "--answer", "artifact=out/board").contains("The draft is in " + into));
        assertTrue(Files.readString(into).contains("component: board"));
        assertTrue(draft("--into", into.toString()).contains(into + " is here already; name another with --into"));
        assertEquals(2, code);
    }

    @Test
    void whereThereIsAFileAlreadyItIsSaid() throws IOException {
        Files.writeString(folder.resolve("paseo.yaml"), "paseo: 1\n");
        assertTrue(draft().contains("paseo.yaml is here already: check it with paseo check"));
        assertEquals(2, code);
        draft("--anyway");
        assertEquals(0, code);
    }

    @Test
    void whatCannotBeUsedIsTold() {
        assertTrue(
                draft("--answer", "artefact=x").contains("Nothing named artefact is asked of this repository; did you "
                        + "mean artifact?"));
        assertEquals(2, code);
    }
}

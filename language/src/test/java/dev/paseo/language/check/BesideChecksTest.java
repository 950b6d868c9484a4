package dev.paseo.language.check;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.language.SourcePositions;
import dev.paseo.language.file.PipelineFileReader;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What a pipeline file names and does not lie beside it. */
class BesideChecksTest {

    private static final String TEXT = """
            paseo: 1
            component: path-board
            versions: "1.{serial}"
            stages:
              board:
                steps: [./build.sh, "sh tools/paint.sh --all", "make all", "./gradle/run now"]
                keep: {board: out/board}
            deployment:
              bring: ["deploy/**", "conf/*.ini"]
              on-each-host: [deploy/install.sh, other/start.sh]
              removal: ["rm -rf board"]
            """;

    private static List<String> said(String... files) {
        return BesideChecks
                .of(PipelineFileReader.read(TEXT).value().orElseThrow(), SourcePositions.of(TEXT), List.of(files))
                .stream()
                .map(each -> each.line() + " " + each.message()).toList();
    }

    @Test
    void whatLiesBesideIsLeftInPeace() {
        assertEquals(List.of("9 other/start.sh is not brought along: no pattern of bring matches it"),
                said("build.sh", "tools/paint.sh", "gradle/run", "deploy/install.sh", "conf/board.ini",
                        "other/start.sh"));
    }

    @Test
    void whatDoesNotIsTold() {
        assertEquals(List.of("6 there is no build.sh beside this file", "6 there is no tools/paint.sh beside this file",
                "6 there is no gradle/run beside this file",
                "9 deploy/** matches no file beside this one", "9 conf/*.ini matches no file beside this one",
                "9 there is no deploy/install.sh beside this file", "9 there is no other/start.sh beside this file"),
                said("Makefile"));
    }
}

package dev.paseo.language.piece;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFile.Take;
import dev.paseo.language.piece.PieceSource.Found;
import dev.paseo.language.piece.PieceSource.Release;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PipelineTextTest {

    private static final String PIECES = """
            paseo: 1
            component: park-pieces
            versions: "2.1.{serial}"
            pieces:
              java-service:
                summary: A Java service of the park
                inputs:
                  jar: {words: The file that the build leaves, kind: text}
                  jdk: {words: What its agent offers, kind: text, default: jdk25}
                  limit: {words: How long the build may take, kind: duration, default: 10m}
                  batch: {words: Hosts at once, kind: number, default: 1}
                  health: {words: What is asked, kind: one-of, of: [/health, /ready], default: /health}
                may-change: [stages.compile.timeout, stages.compile.wants, deployment.strategy, deployment.secrets]
                stages:
                  compile:
                    wants: ["{given.jdk}"]
                    timeout: "{given.limit}"
                    steps: ["./build.sh {given.jar}"]
                    keep: {app: "out/{given.jar}"}
                  unit-tests:
                    steps: [./test.sh]
                deployment:
                  artifacts: [app]
                  strategy: {rolling: {batch: "{given.batch}"}}
                  on-each-host: [deploy/install.sh]
                  checks:
                    each-host: [{http: "{host.url}{given.health}", within: 30s}]
                route:
                  - test: automatic
                  - staging: on-request
              linted:
                inputs:
                  offers: {words: Its agent, kind: list, default: [sh]}
                stages:
                  lint: {after: [], wants: "{given.offers}", steps: [./lint.sh]}
              both:
                inputs: {jar: {words: The file, kind: text}}
                stages:
                  like:
                    - {piece: linted}
                    - {piece: java-service, given: {jar: "{given.jar}"}}
              watched:
                checks: {keep-checking: 5m}
            """;

    private static final Map<String, Release> RELEASES = Map.of(
            "park-pieces", new Release("park-pieces", "2.1.3", PIECES),
            "odd", new Release("odd", "1.0", "pieces: {self: {stages: {like: {piece: self}}}}"),
            "here", new Release("here", "3.0",
                    "pieces: {way: {stages: {like: {piece: back, of: there}}}}"),
            "there", new Release("there", "4.0",
                    "pieces: {back: {stages: {like: {piece: way, of: here}}}}"));

    private static Found find(String of, Take.Which version) {
        return of.equals("blocked") ? new Found.Not("is of 2.0.1, which was blocked: it loses files")
                : Optional.ofNullable(RELEASES.get(of)).<Found>map(Found.Is::new)
                        .orElseGet(() -> new Found.Not("is of no component that is known"));
    }

    private static PipelineText read(String rest) {
        return PipelineText.read("paseo: 1\ncomponent: daylight-api\n" + rest, PipelineTextTest::find);
    }

    private static PipelineFile good(String rest) {
        PipelineText text = read(rest);
        assertEquals(List.of(), text.reading().problems());
        return text.reading().value().orElseThrow();
    }

    private static final String LIKE = "{piece: java-service, of: park-pieces, version: \"2.*\", "
            + "given: {jar: api.jar, limit: 3m, batch: 2}}";

    @Test
    void thePiecesOfAFileAreReadAndTheFileThatHasThemIsGood() {
        PipelineText text = PipelineText.read(PIECES, PieceSource.NONE);
        assertEquals(List.of(), text.reading().problems());
        assertEquals(List.of("java-service", "linted", "both", "watched"),
                text.pieces().stream().map(Described::name).toList());
        Described service = text.pieces().getFirst();
        assertEquals(List.of("stages", "deployment", "route"), service.parts());
        assertEquals(new Described.Given("limit", "How long the build may take", "duration", Optional.of("10m"),
                List.of()), service.inputs().get(2));
    }

    @Test
    void aWholeFileMayBeLikeAPieceWithAllItsParts() {
        PipelineFile file = good("like: " + LIKE);
        assertEquals(List.of("compile", "unit-tests"), file.stages().stream().map(PipelineFile.Stage::name).toList());
        assertEquals(List.of("jdk25"), file.stages().getFirst().wants());
        assertEquals(Duration.ofMinutes(3), file.stages().getFirst().timeout());
        assertEquals(Map.of("app", "out/api.jar"), file.stages().getFirst().keep());
        assertEquals(List.of("compile"), file.stages().getLast().order().after());
        assertTrue(file.deployment().orElseThrow().strategy().toString().contains("batch=2"),
                () -> file.deployment().orElseThrow().strategy().toString());
        assertEquals(2, file.route().size());
        assertEquals("{host.url}/health", file.deployment().orElseThrow().eachHost().getFirst().http().orElseThrow());
    }

    @Test
    void whatWasUsedIsRecordedWithWhatItUsesInItsTurn() {
        PipelineText text = read("stages: {like: {piece: both, of: park-pieces, given: {jar: a.jar}}}");
        assertEquals(List.of(), text.reading().problems());
        assertEquals(List.of("stages both newest 2.1.3 ", "stages linted the same 2.1.3 both of park-pieces 2.1.3",
                "stages java-service the same 2.1.3 both of park-pieces 2.1.3"),
                text.used().stream().map(used -> used.at() + " " + used.piece() + " " + used.wanted() + " "
                        + used.version() + " " + used.within().orElse("")).toList());
        assertEquals(List.of("lint", "compile", "unit-tests"),
                text.reading().value().orElseThrow().stages().stream().map(PipelineFile.Stage::name).toList());
    }

    @Test
    void aPieceStandsWhereItIsNamedAndOwnStagesBesideIt() {
        PipelineFile file = good("""
                stages:
                  prepare: {steps: [a]}
                  like:
                    - {piece: java-service, of: park-pieces, given: {jar: a.jar}}
                    - {piece: linted, of: park-pieces, given: {offers: [sh, fast]}}
                  publish: {after: [unit-tests, lint], steps: [b]}
                  compile: {wants: [jdk26]}
                route:
                  - like: {piece: java-service, of: park-pieces, given: {jar: a.jar}}
                  - production: on-request
                deployment: {on-each-host: [c], checks: {like: {piece: watched, of: park-pieces}}}
                """);
        assertEquals(List.of("prepare", "compile", "unit-tests", "lint", "publish"),
                file.stages().stream().map(PipelineFile.Stage::name).toList());
        assertEquals(List.of("prepare"), file.stages().get(1).order().after());
        assertEquals(List.of("jdk26"), file.stages().get(1).wants());
        assertEquals(List.of("sh", "fast"), file.stages().get(3).wants());
        assertEquals(3, file.route().size());
        assertEquals(Optional.of(Duration.ofMinutes(5)),
                file.deployment().orElseThrow().afterwards().keepChecking());
    }

    /** What is wrong with a use is told at the user's line, with the piece's where it has one. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "like: {piece: java-service, of: park-pieces} | 3 | needs given.jar: The file that the build leaves",
            "like: {piece: java-service, of: park-pieces, given: {jar: a, jkd: b}} | 3 | "
                    + "is not an input of java-service of park-pieces 2.1.3; did you mean jdk?",
            "like: {piece: java-service, of: park-pieces, given: {jar: a, limit: long}} | 3 | "
                    + "should be a length of time such as 30s, 5m or 48h; got “long” (How long the build may take)",
            "like: {piece: java-service, of: park-pieces, given: {jar: [a, b]}} | 3 | should be text; got a list (The "
                    + "file that the build leaves)",
            "like: {piece: java-service, of: park-pieces, given: {jar: a, health: /live}} | 3 | "
                    + "should be one of /health, /ready; got “/live” (What is asked)",
            "like: {piece: java-servise, of: park-pieces} | 3 | park-pieces 2.1.3 has no piece java-servise; did you "
                    + "mean java-service?",
            "like: {piece: a, of: blocked, version: \"2.0.1\"} | 3 | the piece a of blocked is of 2.0.1, which was "
                    + "blocked: it loses files",
            "like: {piece: a, of: park-pieces, version: upstream} | 3 | "
                    + "should be newest, a pattern such as \"2.*\", or "
                    + "{live-in: …}: a piece does not come upstream",
            "stages: {like: {piece: self, of: odd}} | 3 | uses itself: self of odd uses self of odd (line 1 of self of "
                    + "odd 1.0)",
            "stages: {like: {piece: way, of: here}} | 3 | uses itself: way of here uses back of there uses way of here "
                    + "(line 1 of back of there 4.0)",
            "route: [{like: {piece: linted, of: park-pieces}}] | 3 | linted of park-pieces 2.1.3 brings no route; it "
                    + "brings stages",
            "stages: {like: [{piece: linted, of: park-pieces}, {piece: linted, of: park-pieces}]} | 3 | brings "
                    + "stages.lint, as linted of park-pieces 2.1.3 does: give one of them another name by an input",
            "stages: {↵ like: {piece: linted, of: park-pieces},↵ lint: {steps: [b]}} | 5 | is said by linted of "
                    + "park-pieces 2.1.3, which does not let it be changed; nothing of it may be changed",
            "like: {piece: java-service, of: park-pieces, given: {jar: a}}↵"
                    + "deployment: {removal: [b]} | 4 | is not said "
                    + "by java-service of park-pieces 2.1.3, which does not let it be changed; it lets be changed: "
                    + "stages.compile.timeout, stages.compile.wants, deployment.strategy, deployment.secrets",
            "like: {piece: java-service, of: park-pieces, given: {jar: a,↵  limit: 999d}} | 4 | should be a length of "
                    + "time such as 30s, 5m or 48h, at most 12h, found “999d” (line 17 of java-service of park-pieces "
                    + "2.1.3)",
            "pieces: {a: {summary: b}} | 3 | needs what it brings: stages, deployment, checks, route",
            "pieces: {a: {inputs: {b: {words: c, kind: text}}, stages: {d: {steps: [e]}}}} | 3 | "
                    + "is used nowhere in the "
                    + "piece: write {given.b} where it belongs, in quotes",
            "pieces: {a: {stages: {d: {steps: [\"{given.e}\"]}}}} | 3 | has no input e",
            "pieces: {a: {inputs: {b: {words: c, kind: list}}, stages: {d: {steps: [\"x {given.b}\"]}}}} | 3 | "
                    + "{given.b} is a list, and cannot stand within a text",
            "pieces: {a: {may-change: [route], stages: {d: {steps: [e]}}}} | 3 | "
                    + "should be a path within what the piece "
                    + "brings, such as stages.compile.wants or deployment.strategy",
            "pieces:↵  a:↵    stages:↵      d:↵        step: [e] | 7 | is not a key that is known here; did you mean "
                    + "steps?",
            "stages: {like: compile} | 3 | should be a mapping of names to values, found “compile”"})
    void whatIsWrongIsToldWhereItStands(String rest, int line, String message) {
        assertTrue(read(rest.replace('↵', '\n')).reading().problems().stream()
                .anyMatch(problem -> problem.line() == line && problem.message().equals(message)),
                () -> "found " + read(rest.replace('↵', '\n')).reading().problems());
    }

    @Test
    void aPieceThatIsNotLookedUpIsAProblemAndNotLeftOut() {
        assertEquals(List.of("the piece java-service of park-pieces is looked up by a service, and none was asked: "
                + "paseo check --service"),
                PipelineText.read("paseo: 1\ncomponent: daylight-api\nlike: " + LIKE, PieceSource.NONE).reading()
                        .problems().stream().map(problem -> problem.message()).toList());
    }

    @Test
    void theFileInForceSaysWhereEachPartComesFromAndReadsTheSame() {
        String rest = "# ours\nstages:\n  like: " + LIKE + "\n  publish: {steps: [b]}\n";
        String expanded = read(rest).expanded();
        assertEquals("""
                paseo: 1
                component: daylight-api
                stages:
                  # from java-service of park-pieces 2.1.3
                  compile:
                    wants: ["jdk25"]
                """.lines().limit(5).toList(), expanded.lines().limit(5).toList(), expanded);
        assertEquals(good(rest), PipelineText.read(expanded, PieceSource.NONE).reading().value().orElseThrow(),
                expanded);
    }

    @Test
    void theDigestIsOfWhatAPieceSaysAndNotOfItsLayout() {
        String again = PIECES.replace("    summary: A Java service of the park",
                "    # why\n    summary:   A Java service "
                        + "of the park");
        assertEquals(PipelineText.piecesOf(PIECES), PipelineText.piecesOf(again));
        assertNotEquals(PipelineText.piecesOf(PIECES).getFirst().digest(),
                PipelineText.piecesOf(PIECES.replace("./test.sh", "./test.sh -v")).getFirst().digest());
    }

    @Test
    void whatIsWrongIsToldOnce() {
        assertEquals(1, read("summary: a\nsummary: b\n").reading().problems().size());
        assertEquals(Optional.of("daylight-api"), read("summary: a").component());
    }

    @ParameterizedTest
    @CsvSource({"2.1,a,2.1,a,2.1,a,CURRENT", "2.0,a,2.1,a,2.1,a,ALIKE", "2.0,a,2.1,b,2.1,b,BEHIND",
            "1.9,a,1.9,a,2.1,b,HELD_BACK", "1.9,a,1.9,a,,,HELD_BACK", "1.9,a,,,2.1,b,BROKEN"})
    void howAUseStandsToWhatThereIs(String used, String digest, String next, String ofNext, String newest,
            String ofNewest, Standing standing) {
        assertEquals(standing, Standing.of(new Standing.At(used, digest),
                Optional.ofNullable(next).map(version -> new Standing.At(version, ofNext)),
                Optional.ofNullable(newest).map(version -> new Standing.At(version, ofNewest))));
    }

    @Test
    void theDifferenceOfTwoTextsIsALineForALine() {
        assertEquals(List.of("@@ -1,3 +1,3 @@", " a", "-b", "+B", " c"), Difference.of("a\nb\nc\n", "a\nB\nc\n"));
        assertEquals(List.of(), Difference.of("a\nb", "a\nb"));
    }

    @Test
    void aliasesOfAPieceDoNotGrowWithoutBound() {
        StringBuilder many = new StringBuilder("pieces:\n  p:\n    stages:\n      s: {steps: &a0 [x, x, x, x]}\n");
        for (int at = 1; at < 12; at++) {
            many.append("      t").append(at).append(": {steps: &a").append(at).append(" [")
                    .append(("*a" + (at - 1) + ", ").repeat(3)).append("x]}\n");
        }
        Release release = new Release("bomb", "1", many.toString());
        long before = System.nanoTime();
        PipelineText.read("paseo: 1\ncomponent: c\nstages: {like: {piece: p, of: bomb}}",
                (of, version) -> new Found.Is(release));
        assertTrue(System.nanoTime() - before < 20_000_000_000L);
    }
}

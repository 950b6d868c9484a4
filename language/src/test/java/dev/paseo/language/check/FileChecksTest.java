package dev.paseo.language.check;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.language.SourcePositions;
import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFileReader;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** A pipeline file beside what the service knows: each slip, and what is said of it. */
class FileChecksTest {

    private static final Map<String, Surroundings.Follows> ENVIRONMENTS = new LinkedHashMap<>();

    static {
        ENVIRONMENTS.put("test", new Surroundings.Follows(List.of(), false));
        ENVIRONMENTS.put("staging", new Surroundings.Follows(List.of("test"), false));
        ENVIRONMENTS.put("production", new Surroundings.Follows(List.of("staging"), false));
        ENVIRONMENTS.put("showroom", new Surroundings.Follows(List.of("test", "staging"), true));
    }

    private static final Surroundings AROUND = new Surroundings("path-board", true,
            List.of("daylight-api", "path-board", "sun-model"), ENVIRONMENTS,
            List.of(Set.of("jdk25"), Set.of("containers", "node")),
            Map.of("daylight-api", Set.of("test", "staging"), "sun-model", Set.of()), Set.of("sun-model"),
            Set.of("BOARD_KEY"), Set.of("BOARD_KEY"), Set.of("main"), Map.of("sun", "sun-model"));

    private static final String HEAD = "paseo: 1\ncomponent: path-board\nversions: \"1.{serial}\"\n";
    private static final String USES = "stages: {board: {steps: [a], secrets: [BOARD_KEY], keep: {board: b}}}\n";

    private static FileChecks.Found found(String text) {
        var reading = PipelineFileReader.read(text);
        return FileChecks.of(reading.value().orElseThrow(() -> new AssertionError(reading.problems())),
                SourcePositions.of(text),
                AROUND);
    }

    private static List<String> said(List<Problem> problems) {
        return problems.stream().map(problem -> problem.line() + " " + problem.message()).toList();
    }

    private static void warns(String text, String... expected) {
        assertEquals(List.of(expected), said(found(text).warnings()));
        assertEquals(List.of(), said(found(text).problems()));
    }

    private static void refuses(String text, String... expected) {
        assertEquals(List.of(expected), said(found(text).problems()));
    }

    @Test
    void aFileThatAgreesIsLeftInPeace() {
        warns(HEAD + "starts: [{push: [main, \"feature/*\"]}]\n" + USES);
    }

    @Test
    void whatStartsNothingIsTold() {
        warns(HEAD + USES, "1 names no triggers: it starts when a person asks, and not by itself");
        warns(HEAD + "starts: [{push: [mian]}]\n" + USES, "4 there is no branch mian; did you mean main?");
        warns(HEAD + "starts: [{live: {component: daylight-api, in: production}}]\n" + USES,
                "4 daylight-api does not walk to production: this starts nothing, unless a person brings it there");
        refuses(HEAD + "starts: [{upstream: sun-modle}]\n" + USES,
                "4 there is no component sun-modle; did you mean sun-model?");
        refuses(HEAD + "starts: [{live: {component: daylight-api, in: prod}}]\n" + USES,
                "4 there is no environment prod; known: test, staging, production, showroom");
    }

    @Test
    void aNameThatIsNoLongerInUseStillMeansTheSame() {
        warns(HEAD + "starts: [{upstream: sun}]\n" + USES, "4 sun is called sun-model now");
    }

    @Test
    void whatCannotBeTakenIsTold() {
        refuses(HEAD
                + "starts: [{push: [main]}]\nstages: {board: {take: [{from: daylight-api}], steps: [a], secrets: "
                + "[BOARD_KEY]}}\n",
                "5 daylight-api is not opened to path-board: paseo component open path-board --source daylight-api");
        warns(HEAD
                + "starts: [{upstream: sun-model, outcomes: [failed, cancelled]}]\nstages: {board: {take: [{from: "
                + "sun-model, version: upstream}], steps: [a], secrets: [BOARD_KEY]}}\n",
                "5 only failed or cancelled runs of sun-model start it, and they make nothing: what is taken is "
                        + "what was used last, or the newest");
        warns(HEAD
                + "starts: [{push: [main]}]\nstages: {board: {take: [{from: sun-model, version: {live-in: test}}], "
                + "steps: [a], secrets: [BOARD_KEY]}}\n",
                "5 sun-model does not walk to test: there is nothing to take, unless a person brings it there");
    }

    @Test
    void whatNoAgentOffersIsTold() {
        warns(HEAD + "starts: [{push: [main]}]\nstages: {board: {wants: [jdk52], steps: [a], secrets: [BOARD_KEY]}}\n",
                "5 no agent offers jdk52; did you mean jdk25?");
        warns(HEAD
                + "starts: [{push: [main]}]\nstages: {board: {wants: [jdk25, node], steps: [a], secrets: "
                + "[BOARD_KEY]}}\n",
                "5 no agent offers all of jdk25, node");
        warns(HEAD
                + "starts: [{push: [main]}]\nstages: {board: {wants: [containers, node], steps: [a], secrets: "
                + "[BOARD_KEY]}}\n");
    }

    @Test
    void aRouteThatLeavesOutWhatAnEnvironmentFollowsIsTold() {
        String recipe = "deployment: {on-each-host: [a]}\n";
        warns(HEAD + "starts: [{push: [main]}]\n" + USES + recipe
                + "route: [{test: automatic}, {production: on-request}]\n",
                "7 production follows staging, which is not before it on this route: a version is not taken there "
                        + "unless a person has brought it to staging before");
        warns(HEAD + "starts: [{push: [main]}]\n" + USES + recipe
                + "route: [{test: automatic}, {staging: automatic}, {production: on-request}]\n");
        warns(HEAD + "starts: [{push: [main]}]\n" + USES + recipe
                + "route: [{test: automatic}, {showroom: on-request}]\n");
        refuses(HEAD + "starts: [{push: [main]}]\n" + USES + recipe + "route: [{tset: automatic}]\n",
                "7 there is no environment tset; did you mean test?");
    }

    @Test
    void secretsThatWereNotGivenAndThoseWithoutAValueAreToldApart() {
        warns(HEAD + "starts: [{push: [main]}]\nstages: {board: {steps: [a], secrets: [BOARD_KEI]}}\n",
                "1 BOARD_KEY was given to path-board, but nothing here names it; did you mean BOARD_KEI?",
                "5 BOARD_KEI was not given to path-board: paseo secret grant path-board BOARD_KEI; did you mean "
                        + "BOARD_KEY?");
        Surroundings without = new Surroundings("path-board", true, AROUND.components(), ENVIRONMENTS, List.of(),
                Map.of(),
                Set.of(), Set.of("BOARD_KEY"), Set.of(), Set.of(), Map.of());
        String text = HEAD + "starts: [{push: [main]}]\n" + USES;
        assertEquals(List.of("5 BOARD_KEY has no value: paseo secret set BOARD_KEY --component path-board"),
                said(FileChecks
                        .of(PipelineFileReader.read(text).value().orElseThrow(), SourcePositions.of(text), without)
                        .warnings()));
    }

    @Test
    void withoutStagesTheOnlyArtifactIsTheCommitsFiles() {
        String starts = HEAD + "starts: [{push: [main]}]\n";
        refuses(starts + "deployment: {artifacts: [app], on-each-host: [a]}\n",
                "5 names app, but without stages the only artifact is tree, the commit's files");
        String good = starts + "tree: site\ndeployment: {artifacts: [tree], on-each-host: [a]}\n";
        assertEquals(List.of(),
                said(FileChecks
                        .of(PipelineFileReader.read(good).value().orElseThrow(), SourcePositions.of(good), AROUND)
                        .problems()));
        Surroundings uploaded = new Surroundings("path-board", false, AROUND.components(), ENVIRONMENTS, List.of(),
                Map.of(), Set.of(), Set.of(), Set.of(), Set.of(), Map.of());
        assertEquals(List.of("5 path-board has no repository, so there is no commit to take site from"),
                said(FileChecks
                        .of(PipelineFileReader.read(good).value().orElseThrow(), SourcePositions.of(good), uploaded)
                        .problems()));
    }
}

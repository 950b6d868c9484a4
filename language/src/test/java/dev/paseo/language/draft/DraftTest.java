package dev.paseo.language.draft;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DraftTest {

    private static final Map<String, String> TEXTS = Map.of(
            "package.json", "{\"scripts\": {\"test\": \"x\", \"build\": \"y\"}}", "Makefile",
            "all:\n\tcc\ncheck: all\n\t./check\n",
            "README.md", "# Daylight \"boards\"\n\nMore.");

    /** Every draft is a good file, whatever the repository has. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "pom.xml README.md               | build: mvn -B -ntp",
            "pom.xml a/pom.xml mvnw          | build: ./mvnw -B -ntp",
            "package.json package-lock.json  | build: npm ci; npm test; npm run build",
            "package.json                    | build: npm install; npm test; npm run build",
            "pom.xml package.json            | build: mvn; page: npm install",
            "Makefile src/sun.c             | build: make; unit-tests: make check",
            "build.sh test.sh Containerfile  | build: ./build.sh; unit-tests: ./test.sh; image: test -s out/image.tar",
            "script/test                     | unit-tests: ./script/test",
            "Dockerfile                      | image: test -s out/image.tar",
            "go.mod main.go                  | build: GOMODCACHE=$PWD/.go go test ./...",
            "serve.py test_serve.py          | build: python3 -m unittest discover",
            "serve.py conftest.py            | build: python3 -m pytest --junitxml=reports/tests.xml",
            "index.html                      | build: echo"})
    void aDraftIsAGoodFile(String paths, String expected) {
        Set<String> all = Arrays.stream(paths.split(" ")).collect(Collectors.toSet());
        String text = Draft.of("sun-board", "season/é", new Draft.Repository(all,
                path -> all.contains(path) ? Optional.ofNullable(TEXTS.get(path)) : Optional.empty()));
        Reading<PipelineFile> reading = PipelineFileReader.read(text);
        assertEquals(List.of(), reading.problems(), text);
        String stages = reading.value().orElseThrow().stages().stream().map(stage -> stage.name() + ": "
                + String.join("; ", stage.steps().stream().map(PipelineFile.Step::command).toList()))
                .collect(Collectors.joining("; "));
        for (String part : expected.split("; ")) {
            assertTrue(stages.contains(part), stages);
        }
        reading.value().get().stages().forEach(stage -> assertTrue(text.contains("  # "), "each stage says why"));
    }
}

package dev.paseo.language.file;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PipelineText;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** The reader and the JSON Schema agree on good and bad files; what only the reader can see is marked so. */
class CorpusTest {

    private static final Schema SCHEMA = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
            .getSchema(resource("/dev/paseo/language/paseo.schema.json"));

    private record Case(String kind, String text, String expected) {}

    private static String resource(String name) {
        try (InputStream in = Objects.requireNonNull(CorpusTest.class.getResourceAsStream(name), name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new IllegalStateException(unreadable);
        }
    }

    static Stream<Arguments> corpus() {
        return cases().map(each -> Arguments.of(each.kind(), each.text(), each.expected()));
    }

    private static Stream<Case> cases() {
        return resource("/corpus.txt").lines().filter(line -> !line.startsWith("#")).map(line -> {
            String[] parts = line.split("\\s*\\|\\s*", 3);
            int cut = parts[2].lastIndexOf('|');
            String text = parts[2].substring(0, cut).strip();
            return new Case(parts[0], file(parts[1], text.replace('↵', '\n')), parts[2].substring(cut + 1).strip());
        });
    }

    private static String file(String where, String text) {
        String head = "paseo: 1\ncomponent: daylight-api\n";
        return switch (where) {
            case "file" -> text;
            case "top" -> head + text;
            case "stage" -> head + "stages: {compile: {" + text + "}}";
            case "stages" -> head + "stages: {" + text + "}";
            case "start" -> head + "starts: [{" + (text.equals("''") ? "" : text) + "}]";
            case "ask" -> head + "asks: {verbose: {" + text + "}}";
            case "take" -> head + "stages: {compile: {steps: [a], take: [{" + text + "}]}}";
            case "recipe" -> head + "stages: {compile: {steps: [a], keep: {app: out/app.jar}}}\ndeployment: {" + text
                    + "}";
            default -> throw new IllegalArgumentException(where);
        };
    }

    @ParameterizedTest
    @MethodSource("corpus")
    void readerAndSchemaAgree(String kind, String text, String expected) {
        Reading<PipelineFile> reading = PipelineText.read(text, PieceSource.NONE).reading();
        if (kind.equals("good")) {
            assertEquals(List.of(), reading.problems());
            assertEquals(List.of(), SCHEMA.validate(text, InputFormat.YAML));
        } else {
            assertTrue(
                    reading.problems().stream().map(Problem::message).anyMatch(message -> message.contains(expected)),
                    () -> "found: " + reading.problems());
            assertTrue(reading.problems().stream().allMatch(problem -> problem.line() >= 1 && problem.column() >= 1));
            assertTrue(kind.equals("meaning") || !SCHEMA.validate(text, InputFormat.YAML).isEmpty(),
                    "the schema finds nothing wrong");
        }
    }

    @Test
    void theCorpusIsLargeAndHasAllKinds() {
        assertTrue(cases().count() >= 150);
        for (String kind : List.of("good", "shape", "meaning")) {
            assertTrue(cases().filter(each -> each.kind().equals(kind)).count() >= 40, kind);
        }
    }

    /** The reference page names every key that the schema has, and its example is a good file. */
    @Test
    void theReferencePageNamesEveryKey() throws IOException {
        String page = Files.readString(Path.of(System.getProperty("paseo.root"), "docs/reference/pipeline-file.md"));
        Set<String> keys = new TreeSet<>();
        Matcher properties = Pattern.compile("\"properties\" *: *\\{")
                .matcher(resource("/dev/paseo/language/paseo.schema.json"));
        while (properties.find()) {
            keys.addAll(keysOf(resource("/dev/paseo/language/paseo.schema.json").substring(properties.end() - 1)));
        }
        assertTrue(keys.containsAll(Set.of("newer-start", "after-any", "same-commit", "on-each-host", "retries")),
                keys::toString);
        assertEquals(List.of(), keys.stream()
                .filter(key -> !Pattern.compile("(?<![a-z-])" + key + "(?![a-z-])").matcher(page).find()).toList());
        String example = page.substring(page.indexOf("```yaml") + 8);
        assertEquals(List.of(), PipelineFileReader.read(example.substring(0, example.indexOf("```"))).problems());
    }

    /** The keys of the JSON object that a text begins with. */
    private static List<String> keysOf(String json) {
        List<String> keys = new ArrayList<>();
        int depth = 0;
        Matcher part = Pattern.compile("[{}\\[\\]]|\"((?:[^\"\\\\]|\\\\.)*)\"(\\s*:)?").matcher(json);
        while (part.find()) {
            String found = part.group();
            depth += found.equals("{") || found.equals("[") ? 1 : found.equals("}") || found.equals("]") ? -1 : 0;
            if (depth == 0) {
                break;
            }
            if (depth == 1 && part.group(2) != null) {
                keys.add(part.group(1));
            }
        }
        return keys;
    }
}

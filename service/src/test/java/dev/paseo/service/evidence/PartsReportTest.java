package dev.paseo.service.evidence;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.evidence.Parts;
import dev.paseo.core.evidence.Parts.Part;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;

class PartsReportTest {

    private static final String BEGINNING = "{\"bomFormat\": \"CycloneDX\", \"specVersion\": \"1.6\", ";

    private static InputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
    }

    private static Parts read(InputStream in) {
        PartsReport report = new PartsReport(JsonMapper.shared());
        report.read(in);
        return report.parts();
    }

    @Test
    void partsAreReadWithThoseWithinThem() {
        Parts parts = read(bytes(BEGINNING + """
                "metadata": {"component": {"name": "daylight-api"}},
                "components": [
                  {"type": "library", "group": "park.example", "name": "horizon", "version": "3.1",
                   "purl": "pkg:Maven/park.example/horizon@3.1?type=jar#x", "licenses": [{"license": {"id": "MIT"}},
                     {"license": {"name": "Park licence", "text": {"content": "All may walk",
                       "name": "no"}}}], "hashes": [{"alg": "SHA-256", "content": "00"}],
                   "components": [{"name": "inner", "version": "1", "licenses": [{"expression": "MIT OR Zlib"}]}]},
                  {"group": "park.example", "name": "bare"}, {"name": ""}],
                "dependencies": [{"ref": "a", "dependsOn": ["b"]}, {"ref": "b", "dependsOn": ["a"]}]}"""));
        assertEquals(List.of(new Part("inner", "1", "MIT OR Zlib"),
                new Part("pkg:maven/park.example/horizon", "3.1", "MIT, Park licence"),
                new Part("park.example/bare", "", "")), parts.list());
    }

    private static String xml(String body) {
        return "\uFEFF<?xml version=\"1.0\"?>\n<bom xmlns=\"http://cyclonedx.org/schema/bom/1.6\" version=\"1\">" + body
                + "</bom>";
    }

    @Test
    void theSameIsReadInXml() {
        Parts parts = read(bytes(xml("""
                <metadata><component type="application"><name>daylight-api</name></component>
                  <tools><components><component><name>maker</name></component></components></tools></metadata>
                <components>
                  <component type="library"><group>park.example</group><name>horizon</name><version>3.1</version>
                    <licenses><license><id>MIT</id></license><license><name>Park licence</name>
                      <text>All may walk</text></license></licenses>
                    <purl>pkg:Maven/park.example/horizon@3.1?type=jar#x</purl>
                    <pedigree><ancestors><component><name>older</name></component></ancestors></pedigree>
                    <evidence><licenses><license><id>no</id></license></licenses></evidence>
                    <components><component><name>inner</name><version>1</version>
                      <licenses><expression>MIT OR Zlib</expression></licenses></component></components></component>
                  <component><group>park.example</group><name>bare</name></component>
                  <component><name> </name></component></components>
                <dependencies><dependency ref="a"><dependency ref="b"/></dependency></dependencies>""")));
        assertEquals(List.of(new Part("inner", "1", "MIT OR Zlib"),
                new Part("pkg:maven/park.example/horizon", "3.1", "MIT, Park licence"),
                new Part("park.example/bare", "", "")), parts.list());
    }

    static Stream<Arguments> whatIsNoListOfPartsIsToldInOneSentence() {
        String deep = "{\"name\": \"x\", \"components\": [";
        return Stream.of(Arguments.of("[]", "is not CycloneDX in JSON: an object with bomFormat and components"),
                Arguments.of("{\"version\": \"2.1.0\", \"runs\": []}", "is not CycloneDX: bomFormat does not say so"),
                Arguments.of("<bom/>", "is <bom>, not CycloneDX: <bom xmlns=\"http://cyclonedx.org/schema/bom/…\">"),
                Arguments.of("  <html xmlns=\"http://cyclonedx.org/schema/bom/1.4\"/>", "is <html>, not CycloneDX"),
                Arguments.of("<bom xmlns=\"http://cyclonedx.org/schema/bom/1.1\"/>",
                        "is CycloneDX 1.1; 1.2 to 1.7 are read"),
                Arguments.of("<!DOCTYPE bom [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>" + xml("").substring(23),
                        "has a document type"),
                Arguments.of(xml("<components><component><name>a</name></components>"), "not well-formed XML"),
                Arguments.of(xml("<components><component><purl>horizon</purl></component></components>"),
                        "has the package URL “horizon”, which is none: "),
                Arguments.of(xml("<components><component>".repeat(25) + "</component></components>".repeat(25)),
                        "has components within components, more than 20 deep"),
                Arguments.of(xml("<components>" + "<component><name>p</name></component>".repeat(20_001)
                        + "</components>"), "has more than 20000 components"),
                Arguments.of(BEGINNING + "\"components\": [{\"name\": ", "not valid JSON"),
                Arguments.of("{\"bomFormat\": \"CycloneDX\", \"specVersion\": \"2.0\"}",
                        "is CycloneDX 2.0; 1.2 to 1.7 are read"),
                Arguments.of(BEGINNING + "\"components\": [{\"purl\": \"horizon\"}]}",
                        "has the package URL “horizon”, which is none: "),
                Arguments.of(BEGINNING + "\"components\": [" + deep.repeat(30) + "]}".repeat(30) + "]}",
                        "has components within components, more than 20 deep"),
                Arguments.of(BEGINNING + "\"x\": " + "[".repeat(2000) + "]".repeat(2000) + "}", "not valid JSON"),
                Arguments.of(BEGINNING + "\"components\": [" + IntStream.rangeClosed(0, 20_000)
                        .mapToObj(at -> "{\"name\": \"p" + at + "\"}").collect(Collectors.joining(",")) + "]}",
                        "has more than 20000 components"));
    }

    @ParameterizedTest
    @MethodSource
    void whatIsNoListOfPartsIsToldInOneSentence(String text, String said) {
        String message = String.valueOf(assertThrows(UnreadableReport.class, () -> read(bytes(text))).getMessage());
        assertTrue(message.contains(said), message);
    }

    /** Read as a stream: the heap does not grow with it. */
    @Test
    void fiftyMegabytesAreRead() throws IOException {
        String one = "{\"name\": \"horizon\", \"version\": \"3.1\", \"description\": \"" + "x".repeat(2_600) + "\"},";
        InputStream many = new SequenceInputStream(Collections.enumeration(
                IntStream.range(0, 19_000).mapToObj(at -> bytes(one)).toList()));
        InputStream whole = new SequenceInputStream(Collections.enumeration(List.of(
                bytes(BEGINNING + "\"components\": ["), many, bytes("{\"name\": \"last\"}]}"))));
        assertEquals(new Parts.Summary(2, 2), read(whole).summary(), "the same part counts once");
    }
}

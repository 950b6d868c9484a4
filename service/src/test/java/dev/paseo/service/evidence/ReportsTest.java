package dev.paseo.service.evidence;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.evidence.CoverageSummary.Counted;
import dev.paseo.core.evidence.CoverageSummary;
import dev.paseo.core.evidence.FindingsSummary;
import dev.paseo.core.evidence.TestSummary;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;

class ReportsTest {

    private static InputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
    }

    private static TestSummary tests(String xml, String... failedBefore) {
        TestReport report = new TestReport(Set.of(failedBefore));
        Xml.read(bytes(xml), report);
        return report.summary();
    }

    @Test
    void testsAreCountedAsTheyWent() {
        TestSummary summary = tests("""
                <testsuites><testsuite><testcase classname="a" name="one" time="0.25"/><testcase classname="a" \
                name="two" time="1,000.5"><error message="m"><![CDATA[out <put>]]></error></testcase>
                <testcase name="three"><skipped/></testcase></testsuite></testsuites>""", "a.one", "a.gone");
        assertEquals("3 1 1 1",
                summary.total() + " " + summary.passed() + " " + summary.failed() + " " + summary.skipped());
        assertEquals(new TestSummary.Failure("a.two", "m", "out <put>", Optional.of(1000.5)),
                summary.failures().getFirst());
        assertEquals(List.of("a.one"), summary.mended());
        assertEquals("a.two", summary.slowest().getFirst().name());
    }

    @Test
    void failuresBeyondAThousandAreCountedAndNotShown() {
        TestSummary summary = tests("<testsuite>" + IntStream.rangeClosed(1, 1001)
                .mapToObj(at -> "<testcase name=\"t" + at + "\"><failure message=\"m\"/></testcase>")
                .collect(Collectors.joining()) + "</testsuite>");
        assertEquals(1001, summary.failed());
        assertEquals(1000, summary.failures().size());
    }

    @Test
    void coverageOfBothFormatsAddsUp() {
        CoverageReport report = new CoverageReport();
        Xml.read(
                bytes("""
                <!DOCTYPE report PUBLIC "-//JACOCO//DTD Report 1.1//EN" "report.dtd">
                <report name="r"><package name="a/b"><class name="x"><counter type="LINE" missed="9" \
                covered="9"/></class>
                <counter type="LINE" missed="1" covered="3"/><counter type="BRANCH" missed="1" \
                covered="1"/></package><counter type="LINE" missed="1" covered="3"/></report>"""),
                report);
        Xml.read(
                bytes("""
                <coverage><packages><package name="c"><classes><class><methods><method><lines><line number="1" \
                hits="1"/></lines></method></methods>
                <lines><line number="1" hits="1" branch="true" condition-coverage="50% (1/2)"/><line number="2" \
                hits="0"/></lines></class></classes></package></packages></coverage>"""),
                report);
        CoverageSummary summary = report.summary();
        assertEquals(new Counted(4, 6), summary.lines());
        assertEquals(Optional.of(new Counted(2, 4)), summary.branches());
        assertEquals(List.of("a.b", "c"), summary.groups().stream().map(CoverageSummary.Group::name).toList());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "<coverage lines-valid='40' lines-covered='30' branches-valid='8' branches-covered='2'/>             | "
                    + "30 | 40 | 2",
            "<report name='r'><counter type='LINE' missed='10' covered='30'/></report>                           | "
                    + "30 | 40 | -1",
            "<coverage lines-valid='0' lines-covered='0'><packages/></coverage>                                  | "
                    + "0  | 0  | -1",
            "<coverage lines-valid='4' lines-covered='9'/>                                                       | "
                    + "0  | 0  | -1",
            "<coverage lines-valid='40' lines-covered='30'><line number='1' hits='1'/></coverage>                | "
                    + "1  | 1  | -1"})
    void totalsThatAReportStatesAreReadWhereItCountsNothing(String file, long covered, long total, long branches) {
        CoverageReport report = new CoverageReport();
        Xml.read(bytes(file), report);
        CoverageSummary summary = report.summary();
        assertEquals(new Counted(covered, total), summary.lines());
        assertEquals(branches < 0 ? Optional.empty() : Optional.of(branches), summary.branches().map(Counted::covered));
    }

    @Test
    void aFindingIsTheSameWhenItsLineMoves() {
        String result = "{\"ruleId\":\"r\",\"level\":\"error\",\"message\":{\"text\":\"t\"},"
                + "\"locations\":[{\"physicalLocation\":{\"artifactLocation\":{\"uri\":\"A.java\"},"
                + "\"region\":{\"startLine\":%d}}}]}";
        FindingsSummary before = findings(
                "{\"version\":\"2.1.0\",\"$schema\":\"s\",\"runs\":[{\"results\":[" + result.formatted(3) + "]}]}");
        FindingsSummary now = findings("{\"runs\":[{\"tool\":{\"driver\":{}},\"results\":[" + result.formatted(30) + ","
                + result.formatted(40) + "]}],\"version\":\"2.1.0\"}");
        assertEquals(1, now.since(before).appeared().size(), "the second one is new, though it reads like the first");
        assertEquals(1, now.since(before).still());
        assertEquals(2, now.errors());
    }

    private static FindingsSummary findings(String json) {
        FindingsReport report = new FindingsReport(JsonMapper.builder().build());
        report.read(bytes(json));
        return report.summary();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "[]", "{}", "{\"version\":\"1.0\",\"runs\":[]}",
            "{\"version\":\"2.1.0\",\"runs\":[{\"results\":[{", "{\"version\":\"2.1.0\"", "nonsense"})
    void whatIsNoSarifIsTold(String json) {
        assertThrows(UnreadableReport.class, () -> findings(json));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "text", "<html/>", "<testsuite><testcase>", "<testsuite></testcase>",
            "<testsuite>&x;</testsuite>",
            "<!DOCTYPE t [<!ENTITY a 'aaaaaaaaaa'><!ENTITY b '&a;&a;&a;&a;&a;&a;&a;&a;'>]><testsuite>&b;</testsuite>",
            "<!DOCTYPE t SYSTEM 'http://127.0.0.1:9/t.dtd' [<!ENTITY % p SYSTEM "
                    + "'http://127.0.0.1:9/p'>%p;]><testsuite>&q;</testsuite>"})
    void brokenOrHostileXmlIsTold(String xml) {
        UnreadableReport told = assertThrows(UnreadableReport.class, () -> tests(xml));
        assertTrue(told.getMessage().length() < 400, told::getMessage);
    }

    @Test
    void endlessDepthAndEndlessValuesAreRefusedBeforeTheyFillTheMemory() {
        assertThrows(UnreadableReport.class, () -> tests("<testsuite>" + "<a>".repeat(200)));
        InputStream endless = new InputStream() {
            private int at;
            private final byte[] head = "<testsuite name=\"".getBytes(StandardCharsets.UTF_8);

            @Override
            public int read() {
                return at < head.length ? head[at++] : 'x';
            }
        };
        UnreadableReport told = assertThrows(UnreadableReport.class, () -> Xml.read(endless, new TestReport(Set.of())));
        assertEquals("more than 16 MB without a tag", told.getMessage());
    }
}

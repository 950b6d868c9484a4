package dev.paseo.service.releaserecord;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.releaserecord.ReleaseRecords.ReleaseRecordView;
import dev.paseo.service.releaserecord.ReleaseRecords.SetRecordView;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.StreamSupport;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.preflight.ValidationResult;
import org.apache.pdfbox.preflight.parser.PreflightParser;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

class RecordPageTest {

    private static final Instant NOON = Instant.parse("2026-05-04T12:00:01Z");

    private final RecordPage page = new RecordPage(JsonMapper.builder().build());

    private static ReleaseRecordView record(String words) {
        return new ReleaseRecordView(1, "set summer into production", "Europe/Madrid", NOON, "auditor",
                Optional.of(NOON), Optional.of(NOON), Optional.of(new SetRecordView("summer", "ana", words, NOON)),
                List.of(), 2, Optional.empty(), true);
    }

    private static PDDocument pdf(String page) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        new RecordPdf().write(page, out);
        return Loader.loadPDF(out.toByteArray());
    }

    @Test
    void itTellsTimesInTheZoneAndWhatIsNotThere() {
        String text = page.of(record("Before the snow"), "promotion=4");
        assertTrue(text.contains("from 4 May 2026 14:00:01 CEST"), text);
        assertTrue(text.contains("2 more are not shown: auditor may not see them."), text);
        assertTrue(text.contains("Nothing went live, and nothing ended.") && text.contains("Nothing is in the audit"));
        assertTrue(text.contains("/api/v1/release-records/pdf?promotion&#x3D;4"), text);
        assertFalse(page.of(record(""), "").contains("class=\"forms\"><a"), "a PDF leads nowhere");
    }

    @Test
    void whatPeopleWroteIsTextAndNothingElse() throws IOException {
        String hostile = "<script>alert(1)</script> ]]> &nope; {{head}} \u0000\u0007 \ud800 \" it's"
                + "<img src=\"file:///etc/passwd\"/>";
        String text = page.of(record(hostile), "");
        assertFalse(text.contains("<script") || text.contains("<img"), text);
        try (PDDocument document = pdf(text)) {
            String shown = new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
            assertTrue(shown.contains("<script>alert(1)</script> ]]> &nope; {{head}}"), shown);
            assertTrue(shown.contains("file:///etc/passwd"), "as text: " + shown);
        }
    }

    @Test
    void aPdfHasItsFontsInIt() throws IOException {
        try (PDDocument document = pdf(page.of(record("Größe, 1 °, καλημέρα, доброе утро"), ""))) {
            PDPage first = document.getPage(0);
            List<PDFont> fonts = StreamSupport.stream(first.getResources().getFontNames().spliterator(), false)
                    .map(name -> font(first, name)).toList();
            assertFalse(fonts.isEmpty());
            assertTrue(fonts.stream().allMatch(PDFont::isEmbedded), fonts::toString);
            assertTrue(new PDFTextStripper().getText(document).contains("Größe, 1 °, καλημέρα, доброе утро"));
            assertEquals("Release record: set summer into production",
                    document.getDocumentInformation().getTitle());
        }
    }

    @Test
    void aPdfIsAsArchivesTakeThem(@TempDir Path folder) throws IOException {
        Path file = folder.resolve("record.pdf");
        try (OutputStream out = Files.newOutputStream(file)) {
            new RecordPdf().write(page.of(record("Größe, 1 °, καλημέρα, доброе утро"), ""), out);
        }
        ValidationResult found = PreflightParser.validate(file.toFile());
        assertTrue(found.isValid(), () -> found.getErrorsList().stream()
                .map(each -> each.getErrorCode() + " " + each.getDetails()).toList().toString());
    }

    private static PDFont font(PDPage page, COSName name) {
        try {
            return page.getResources().getFont(name);
        } catch (IOException unreadable) {
            throw new AssertionError(unreadable);
        }
    }
}

package dev.paseo.service.evidence;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.problem.Refusal;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Arrays;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** Archives of reports that are too many or too large, refused before they are read. */
class EvidenceTest {

    private final KeptBytes bytes = mock(KeptBytes.class);
    private final Reports reports = new Reports(bytes, JsonMapper.builder().build());

    private String refused(byte[] archive) {
        when(bytes.openUnchecked(anyString())).thenAnswer(call -> new ByteArrayInputStream(archive));
        return String
                .valueOf(assertThrows(Refusal.class, () -> reports.read(Evidence.FINDINGS, "digest")).getMessage());
    }

    @Test
    void aReportOfMoreThanIsReadIsRefusedByItsHeader() throws IOException {
        byte[] header = new byte[512];
        TarArchiveEntry entry = new TarArchiveEntry("big.sarif", true);
        entry.setSize(257_000_000);
        entry.writeEntryHeader(header);
        assertEquals("reports findings: big.sarif: has 257 MB; at most 256 MB are read",
                refused(Arrays.copyOf(header, 4096)));
    }

    @Test
    void moreReportsThanAreReadAreRefused() throws IOException {
        ByteArrayOutputStream archive = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(archive)) {
            byte[] report = "{\"version\": \"2.1.0\", \"runs\": []}"
                    .getBytes(java.nio.charset.StandardCharsets.US_ASCII);
            for (int at = 0; at <= 20_000; at++) {
                TarArchiveEntry entry = new TarArchiveEntry(at + ".sarif", true);
                entry.setSize(report.length);
                tar.putArchiveEntry(entry);
                tar.write(report);
                tar.closeArchiveEntry();
            }
        }
        assertEquals("reports findings: more than 20000 files", refused(archive.toByteArray()));
    }
}

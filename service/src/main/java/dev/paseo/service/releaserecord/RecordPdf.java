package dev.paseo.service.releaserecord;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfBoxRenderer;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder.PdfAConformance;
import com.openhtmltopdf.util.XRLog;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.Objects;
import org.apache.pdfbox.pdfwriter.compress.CompressParameters;
import org.springframework.stereotype.Component;

/**
 * Makes a PDF/A-1b (ISO 19005-1) of a page, as archives take it: its fonts and what its colours mean are in it, nothing
 * is fetched from anywhere, and nothing is asked of the fonts of this machine.
 */
@Component
class RecordPdf {

    private static final String FONTS = "/net/sf/jasperreports/fonts/dejavu/";

    private final byte[] colours = ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData();

    RecordPdf() {
        XRLog.setLoggingEnabled(false);
    }

    void write(String page, OutputStream out) throws IOException {
        PdfRendererBuilder builder = new PdfRendererBuilder();
        font(builder, "DejaVuSans.ttf", "record", 400);
        font(builder, "DejaVuSans-Bold.ttf", "record", 700);
        font(builder, "DejaVuSansMono.ttf", "record mono", 400);
        builder.useUriResolver((base, uri) -> null);
        builder.withHtmlContent(page, null);
        builder.withProducer("Paseo");
        builder.usePdfVersion(1.4f);
        builder.usePdfAConformance(PdfAConformance.PDFA_1_B);
        builder.useColorProfile(colours);
        try (PdfBoxRenderer renderer = builder.buildPdfRenderer()) {
            renderer.createPDFWithoutClosing();
            // Of what is compressed, readers of 1.4 know nothing.
            renderer.getPdfDocument().save(out, CompressParameters.NO_COMPRESSION);
        }
    }

    private static void font(PdfRendererBuilder builder, String file, String family, int weight) {
        builder.useFont(() -> font(file), family, weight, FontStyle.NORMAL, true);
    }

    private static InputStream font(String file) {
        return Objects.requireNonNull(RecordPdf.class.getResourceAsStream(FONTS + file), file);
    }
}

package dev.paseo.service.releaserecord;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.util.XRLog;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.Objects;
import org.springframework.stereotype.Component;

/** Makes a PDF of a page. Its fonts are embedded, and nothing is fetched from anywhere. */
@Component
class RecordPdf {

    private static final String FONTS = "/net/sf/jasperreports/fonts/dejavu/";

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
        builder.toStream(out);
        builder.run();
    }

    private static void font(PdfRendererBuilder builder, String file, String family, int weight) {
        builder.useFont(() -> font(file), family, weight, FontStyle.NORMAL, true);
    }

    private static InputStream font(String file) {
        return Objects.requireNonNull(RecordPdf.class.getResourceAsStream(FONTS + file), file);
    }
}

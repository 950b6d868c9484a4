package dev.paseo.service.bytes;

import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;

/** Sends kept bytes as a file; their digest is the ETag, and what is damaged is refused, not sent. */
@Component
public class SentBytes {

    private final KeptBytes bytes;

    SentBytes(KeptBytes bytes) {
        this.bytes = bytes;
    }

    public void send(String digest, long size, String fileName, HttpServletResponse response) throws IOException {
        response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
        response.setContentLengthLong(size);
        response.setHeader(HttpHeaders.ETAG, "\"" + digest + "\"");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment().filename(fileName, StandardCharsets.UTF_8).build().toString());
        try {
            bytes.copy(digest, response.getOutputStream());
        } catch (Refusal damaged) {
            if (!response.isCommitted()) {
                response.reset();
            }
            throw damaged;
        }
    }
}

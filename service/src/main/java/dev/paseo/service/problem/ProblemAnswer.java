package dev.paseo.service.problem;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import tools.jackson.databind.json.JsonMapper;

/** Answers a refusal where no controller was reached. */
public final class ProblemAnswer {

    private ProblemAnswer() {}

    /** Writes the problem detail (RFC 9457) and its status. */
    public static void write(HttpServletResponse response, Refusal refusal) throws IOException {
        Map<String, Object> problem = new LinkedHashMap<>();
        problem.put("type", refusal.kind().type());
        problem.put("title", refusal.title());
        problem.put("status", refusal.kind().status());
        problem.put("detail", refusal.getMessage());
        response.setStatus(refusal.kind().status());
        refusal.again().ifPresent(
                again -> response.setHeader(HttpHeaders.RETRY_AFTER, Long.toString(again.toSeconds())));
        response.setCharacterEncoding(StandardCharsets.UTF_8);
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getWriter().write(JsonMapper.shared().writeValueAsString(problem));
    }
}

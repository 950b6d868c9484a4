package dev.paseo.service.agent;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Gives out the agent's archive, to anybody: an agent is made by its token, not by its program. */
@Hidden
@RestController
class ArchiveController {

    private final AgentArchive archive;

    ArchiveController(AgentArchive archive) {
        this.archive = archive;
    }

    @GetMapping(AgentArchive.PATH)
    void fetch(HttpServletResponse response) throws IOException {
        try (InputStream in = archive.open()) {
            response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
            response.setHeader("ETag", "\"" + archive.digest() + "\"");
            in.transferTo(response.getOutputStream());
        }
    }
}

package dev.paseo.service.run;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.bytes.SentBytes;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a run has made. */
@RestController
@RequestMapping("/api/v1")
class RunOutputController {

    private final Runs runs;
    private final SentBytes bytes;

    RunOutputController(Runs runs, SentBytes bytes) {
        this.runs = runs;
        this.bytes = bytes;
    }

    /**
     * The bytes of what a run has made so far, whatever became of it; only a version of it is ever deployed. Its digest
     * is the ETag.
     */
    @GetMapping("/runs/{component}/{number}/outputs/{name}")
    void bytes(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable long number,
            @PathVariable String name,
            HttpServletResponse response) throws IOException {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        RunMapper.OutputRow output = runs.outputs(runs.numbered(component, number).id()).stream()
                .filter(each -> each.name().equals(name)).findFirst()
                .orElseThrow(() -> Refusal.notFound(component + "#" + number + " has no artifact " + name));
        bytes.send(output.digest(), output.size(), output.fileName(), response);
    }
}

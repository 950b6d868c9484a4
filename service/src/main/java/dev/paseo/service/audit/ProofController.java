package dev.paseo.service.audit;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.audit.Exported;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;

/** The audit trail taken away, and what proves it to whoever has no service: RFC 9162 over SHA-256, Ed25519. */
@RestController
@RequestMapping("/api/v1/audit")
class ProofController {

    /**
     * An entry with what proves it.
     *
     * @param sentence what it says
     * @param body exactly what was written (RFC 8785); its leaf hash is SHA-256 over a byte 0 and this, in UTF-8
     * @param path from the leaf to the root of the head, as RFC 9162 has it in section 2.1.3, in hexadecimal
     */
    record ProvedView(long position, String sentence, AuditController.WrittenView entry, String body, List<String> path,
            TrailExport.HeadView head) {}

    /**
     * What shows that the tree of a head continues an earlier one.
     *
     * @param from the size of the earlier one
     * @param path as RFC 9162 has it in section 2.1.4, in hexadecimal
     */
    record ConsistencyView(long from, List<String> path, TrailExport.HeadView head) {}

    private final TrailExport trail;
    private final JsonMapper json;

    ProofController(TrailExport trail, JsonMapper json) {
        this.trail = trail;
        this.json = json;
    }

    /** The newest signed head of the audit trail, for whoever keeps it elsewhere. */
    @GetMapping("/head")
    TrailExport.HeadView head(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return trail.view(trail.head());
    }

    /**
     * One entry, with the proof that it is in the tree of the newest head.
     *
     * @param position from 0 on
     */
    @GetMapping("/entries/{position}")
    ProvedView entry(@AuthenticationPrincipal Person person, @PathVariable long position) {
        Permission.require(person, Action.LOOK);
        AuditMapper.ReadRow row = trail.entry(position);
        Exported.Head head = trail.head();
        AuditController.WrittenView written = json.readValue(row.body(), AuditController.WrittenView.class);
        return new ProvedView(position, written.sentence(), written, row.body(),
                trail.inclusion(position, head.head()), trail.view(head));
    }

    /**
     * Shows that the newest head continues an earlier one.
     *
     * @param from the earlier one's size, at least 1
     */
    @GetMapping("/consistency")
    ConsistencyView consistency(@AuthenticationPrincipal Person person, @RequestParam long from) {
        Permission.require(person, Action.LOOK);
        Exported.Head head = trail.head();
        return new ConsistencyView(from, trail.consistency(from, head.head()), trail.view(head));
    }

    /**
     * Takes the audit trail away, as lines of JSON that verify by themselves; up to the newest head.
     *
     * @param from  the position of the first entry
     * @param since instead of it: from the first entry of this second on; RFC 3339
     */
    @GetMapping(value = "/export", produces = "application/jsonl")
    void export(@AuthenticationPrincipal Person person, @RequestParam Optional<Long> from,
            @RequestParam Optional<Instant> since, HttpServletResponse response) throws IOException {
        Permission.require(person, Action.VERIFY_AUDIT, "take the audit trail away");
        if (from.isPresent() && since.isPresent()) {
            throw Refusal.invalid("/since", "should not be given with from");
        }
        TrailExport.Part part = trail.part(from.or(() -> since.map(AuditController::second).map(trail::firstSince))
                .orElse(0L));
        response.setContentType("application/jsonl");
        response.setHeader("Content-Disposition", "attachment; filename=\"trail.jsonl\"");
        trail.write(part, response.getOutputStream());
    }
}

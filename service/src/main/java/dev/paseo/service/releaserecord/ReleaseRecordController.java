package dev.paseo.service.releaserecord;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.releaserecord.ReleaseRecords.Reader;
import dev.paseo.service.releaserecord.ReleaseRecords.ReleaseRecordView;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** One document with all of a deployment, of a set's promotion, or of a period of an environment. */
@RestController
@RequestMapping("/api/v1/release-records")
class ReleaseRecordController {

    private final ReleaseRecords records;
    private final RecordPage page;
    private final RecordPdf pdf;
    private final ServiceClock clock;

    ReleaseRecordController(ReleaseRecords records, RecordPage page, RecordPdf pdf, ServiceClock clock) {
        this.records = records;
        this.page = page;
        this.pdf = pdf;
        this.clock = clock;
    }

    /** Of what a record is; exactly one of the first three. */
    private record RecordOf(Optional<Long> deployment, Optional<Long> promotion, Optional<String> environment,
            Optional<Instant> since, Optional<Instant> until) {

        String query() {
            return deployment.map(id -> "deployment=" + id).or(() -> promotion.map(id -> "promotion=" + id))
                    .orElseGet(() -> "environment=" + environment.orElse("") + "&since=" + since.orElseThrow()
                            + until.map(moment -> "&until=" + moment).orElse(""));
        }

        String fileName() {
            return deployment.map(id -> "deployment-" + id).or(() -> promotion.map(id -> "promotion-" + id))
                    .or(() -> environment).orElse("");
        }
    }

    private ReleaseRecordView of(RecordOf asked, Person person) {
        Permission.require(person, Action.LOOK);
        if (Stream.of(asked.deployment(), asked.promotion(), asked.environment()).filter(Optional::isPresent)
                .count() != 1) {
            throw Refusal.invalid("/deployment", "should be given, or promotion, or environment: one of the three");
        }
        Reader reader = new Reader(person, clock.now());
        return asked.deployment().map(id -> records.ofDeployment(id, reader))
                .or(() -> asked.promotion().map(id -> records.ofPromotion(id, reader)))
                .orElseGet(() -> records.ofPeriod(asked.environment().orElseThrow(),
                        asked.since().orElseThrow(() -> Refusal.invalid("/since",
                                "should be given: the record of an environment is of a period")),
                        asked.until().orElse(reader.now()), reader));
    }

    /**
     * The release record of a deployment, of a set's promotion, or of an environment over a period: what was deployed,
     * what differed, on what evidence, who decided what and when, what was done on which host, what led to it, and
     * where the audit trail has it.
     *
     * @param deployment  of this deployment; exactly one of this, promotion and environment
     * @param promotion   of this promotion of a set
     * @param environment of all that went live in it in a period, or ended in it without having done so
     * @param since       of a period: from when on; RFC 3339
     * @param until       of a period: before when; RFC 3339, not later than now, and at most 400 days after
     *                    since; none: now, and the record says when that was
     */
    @GetMapping
    ReleaseRecordView record(@AuthenticationPrincipal Person person, @RequestParam Optional<Long> deployment,
            @RequestParam Optional<Long> promotion, @RequestParam Optional<String> environment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until) {
        return of(new RecordOf(deployment, promotion, environment, since, until), person);
    }

    /**
     * The same record as a page that is made for print.
     *
     * @param deployment  of this deployment; exactly one of this, promotion and environment
     * @param promotion   of this promotion of a set
     * @param environment of all that went live in it in a period, or ended in it without having done so
     * @param since       of a period: from when on; RFC 3339
     * @param until       of a period: before when; RFC 3339, not later than now, and at most 400 days after
     *                    since; none: now, and the record says when that was
     */
    @GetMapping(value = "/page", produces = "text/html")
    void page(@AuthenticationPrincipal Person person, @RequestParam Optional<Long> deployment,
            @RequestParam Optional<Long> promotion, @RequestParam Optional<String> environment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until, HttpServletResponse response)
            throws IOException {
        RecordOf asked = new RecordOf(deployment, promotion, environment, since, until);
        byte[] body = page.of(of(asked, person), asked.query()).getBytes(StandardCharsets.UTF_8);
        response.setContentType("text/html;charset=utf-8");
        response.getOutputStream().write(body);
    }

    /**
     * The same record as PDF/A-1b (ISO 19005-1), as archives take it, with its fonts in it.
     *
     * @param deployment  of this deployment; exactly one of this, promotion and environment
     * @param promotion   of this promotion of a set
     * @param environment of all that went live in it in a period, or ended in it without having done so
     * @param since       of a period: from when on; RFC 3339
     * @param until       of a period: before when; RFC 3339, not later than now, and at most 400 days after
     *                    since; none: now, and the record says when that was
     */
    @GetMapping(value = "/pdf", produces = "application/pdf")
    void pdf(@AuthenticationPrincipal Person person, @RequestParam Optional<Long> deployment,
            @RequestParam Optional<Long> promotion, @RequestParam Optional<String> environment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until, HttpServletResponse response)
            throws IOException {
        RecordOf asked = new RecordOf(deployment, promotion, environment, since, until);
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        pdf.write(page.of(of(asked, person), ""), body);
        response.setContentType("application/pdf");
        response.setHeader("Content-Disposition", "inline; filename=\"release-record-" + asked.fileName() + ".pdf\"");
        body.writeTo(response.getOutputStream());
    }
}

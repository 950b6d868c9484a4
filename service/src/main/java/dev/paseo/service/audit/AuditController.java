package dev.paseo.service.audit;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.audit.Sentences;
import dev.paseo.core.audit.Verification;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;

@RestController
@RequestMapping("/api/v1/audit")
class AuditController {

    /**
     * What was done, as it was written.
     *
     * @param format  1
     * @param at      when, RFC 3339 in UTC
     * @param subject what it was done to
     * @param where   the environment; empty: none
     * @param because the cause or the reason; empty: none was given
     * @param details further texts by their names
     */
    record WrittenView(int format, String at, String who, String what, String subject, String where, String because,
            Map<String, String> details) {

        String sentence() {
            return Sentences.of(who, what, subject, where, details);
        }
    }

    /**
     * An entry; {@code position} is missing until it is numbered, under a second later.
     *
     * @param sentence what it says: who did what to what and where; why is in the entry
     */
    record EntryView(long id, Optional<Long> position, String sentence, WrittenView entry) {}

    /**
     * The newest entries first.
     *
     * @param next     passed as {@code before} to get older ones; absent where there are none
     * @param lookedBack where a text is looked for and fewer were found than asked for: down to when entries were
     *                 looked through; from {@code next} on it goes on
     */
    record EntriesView(List<EntryView> entries, Optional<Long> next, Optional<Instant> lookedBack) {}

    private static final int LONGEST = 200;
    private static final DateTimeFormatter SECOND = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm:ss")
            .withZone(ZoneOffset.UTC);

    private final AuditTrail trail;
    private final AuditVerifier verifier;
    private final JsonMapper json;

    AuditController(AuditTrail trail, AuditVerifier verifier, JsonMapper json) {
        this.trail = trail;
        this.verifier = verifier;
        this.json = json;
    }

    /**
     * Entries of the audit trail, the newest first.
     *
     * @param before     goes on behind this entry
     * @param by         only what this account did; paseo: the service by itself
     * @param what       only this action, as entries have it, such as held
     * @param component  only about this component, its runs and versions
     * @param version    only about this version of the component, which is named then
     * @param deployment only of this deployment
     * @param since      only from this second on; RFC 3339
     * @param until      only before this second; RFC 3339
     * @param text       only with this in what they say, whatever its case; at most 200 characters. At most 4,000
     *                   entries are looked through for it at once; the answer says how far back
     * @param signIns    false: without those of signing in and failing to
     */
    @GetMapping
    EntriesView entries(@AuthenticationPrincipal Person person, @RequestParam Optional<Long> before,
            @RequestParam(defaultValue = "50") int limit, @RequestParam Optional<String> subject,
            @RequestParam Optional<String> by, @RequestParam Optional<String> what,
            @RequestParam Optional<String> component, @RequestParam Optional<String> version,
            @RequestParam Optional<String> environment, @RequestParam Optional<Long> deployment,
            @RequestParam Optional<Instant> since, @RequestParam Optional<Instant> until,
            @RequestParam Optional<String> text, @RequestParam(defaultValue = "true") boolean signIns) {
        Permission.require(person, Action.LOOK);
        if (version.isPresent() && component.isEmpty()) {
            throw Refusal.invalid("/component", "should be given with a version");
        }
        if (text.filter(sought -> sought.length() > LONGEST).isPresent()) {
            throw Refusal.invalid("/text", "should have at most " + LONGEST + " characters");
        }
        int most = Math.clamp(limit, 1, 500);
        AuditTrail.Found found = trail
                .newest(new AuditMapper.Asked(by.orElse(null), what.orElse(null),
                        version.map(number -> component.orElseThrow() + " " + number).or(() -> subject).orElse(null),
                        component.orElse(null), environment.orElse(null),
                        deployment.map(id -> Long.toString(id)).orElse(null),
                        since.map(AuditController::second).orElse(null),
                        until.map(AuditController::second).orElse(null),
                        text.orElse(null), signIns, null, before.orElse(null), most));
        List<EntryView> entries = found.entries().stream()
                .map(this::view).toList();
        return new EntriesView(entries, found.last().map(AuditMapper.LastRow::id),
                found.last().filter(last -> entries.size() < most && text.isPresent())
                        .map(last -> Instant.parse(last.second() + "Z")));
    }

    private EntryView view(AuditMapper.ReadRow row) {
        WrittenView written = json.readValue(row.body(), WrittenView.class);
        return new EntryView(row.id(), Optional.ofNullable(row.position()), written.sentence(), written);
    }

    static String second(Instant moment) {
        return SECOND.format(moment);
    }

    /** Verifies the whole audit trail against its heads, and what it states against the rows. */
    @GetMapping("/verification")
    Verification.Report verification(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.VERIFY_AUDIT);
        return verifier.verify();
    }

    record RestoreBody(String reason) {}

    /**
     * Says that the database was restored from an older copy, with the reason; the verification names the gap from then
     * on, and finds no fault with it.
     */
    @PostMapping("/restore")
    Verification.Gap restored(@AuthenticationPrincipal Person person, @RequestBody RestoreBody request) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "acknowledge a restore");
        if (request.reason().isBlank()) {
            throw Refusal.invalid("/reason", "Say why the database was restored, and how old the backup was");
        }
        return verifier.acknowledge(request.reason().strip(), person.name());
    }
}

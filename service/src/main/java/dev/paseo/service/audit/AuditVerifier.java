package dev.paseo.service.audit;

import dev.paseo.core.audit.Stated;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.audit.Verification;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Verifies the service's own audit trail, against the heads of the database and those of the file outside it. */
@Component
class AuditVerifier {

    private static final int MOST_DIFFERING = 50;
    private static final String RESTORED = "restore acknowledged";

    private final AuditMapper mapper;
    private final SignedHeads key;
    private final List<Guarded> guarded;
    private final JsonMapper json;
    private final Around around;

    /** How it is written down. */
    @Component("auditVerifierAround")
    record Around(Transactions transactions, AuditTrail audit) {}

    AuditVerifier(AuditMapper mapper, SignedHeads key, List<Guarded> guarded, JsonMapper json, Around around) {
        this.mapper = mapper;
        this.key = key;
        this.guarded = guarded;
        this.json = json;
        this.around = around;
    }

    /** The file's heads are read before the rest, since each is written after what it covers. */
    Verification.Report verify() {
        List<String> lines = lines();
        return around.transactions().atOneMoment(() -> asOfNow(lines));
    }

    /** An administrator says that the database was restored from an older copy; the trail tells of it for good. */
    Verification.Gap acknowledge(String reason, String by) {
        List<TreeHead> heads = new ArrayList<>();
        List<String> wrongSignatures = new ArrayList<>();
        heads(lines(), heads, wrongSignatures);
        Stated before = new Stated();
        List<Verification.Gap> known = new ArrayList<>();
        new Leaves(before, known).forEachRemaining(leaf -> {});
        Verification.Gap gap = Verification.gap(new Leaves(before, new ArrayList<>()), heads, known)
                .orElseThrow(() -> Refusal
                        .conflict("No entry of the audit trail is missing, so there is no restore to record"));
        around.transactions()
                .run(() -> around.audit()
                        .record(AuditTrail.Entry.of(by, RESTORED, "audit trail").because(reason)
                                .with("from", Long.toString(gap.from()))
                                .with("to", Long.toString(gap.to())).with("last at", gap.lastAt().toString())));
        return gap;
    }

    private void heads(List<String> lines, List<TreeHead> heads, List<String> findings) {
        mapper.heads().forEach(row -> keepGood(row, "of the database", heads, findings));
        lines.forEach(line -> readHead(line).ifPresentOrElse(row -> keepGood(row, "of the file", heads, findings),
                () -> findings.add("a line of the file of tree heads cannot be read")));
    }

    private Verification.Report asOfNow(List<String> lines) {
        Map<String, String> present = new TreeMap<>();
        guarded.forEach(rows -> present.putAll(rows.states()));
        Stated stated = new Stated();
        List<Verification.Gap> gaps = new ArrayList<>();
        List<String> findings = new ArrayList<>();
        List<TreeHead> heads = new ArrayList<>();
        heads(lines, heads, findings);
        long stray = mapper.strayCount();
        if (stray > 0) {
            findings.add(stray + " entries have lost their number and are not waiting for one");
        }
        Verification.Report report = Verification.verify(new Leaves(stated, gaps), heads, mapper.pendingCount(),
                () -> gaps);
        mapper.pendingBodies().forEach(body -> states(body, stated));
        findings.addAll(report.findings());
        stated.differing(present).stream().limit(MOST_DIFFERING).forEach(findings::add);
        return new Verification.Report(report.entries(), report.covered(), report.notCovered(), List.copyOf(findings),
                report.restored());
    }

    private void states(String body, Stated stated) {
        if (body.contains("\"" + AuditTrail.STATE)) {
            json.readTree(body).path("details").properties().stream()
                    .filter(detail -> detail.getKey().startsWith(AuditTrail.STATE))
                    .forEach(detail -> stated.tell(detail.getKey().substring(AuditTrail.STATE.length()),
                            detail.getValue().asString()));
        }
    }

    private Optional<Verification.Gap> gap(String body) {
        if (!body.contains("\"" + RESTORED + "\"")) {
            return Optional.empty();
        }
        JsonNode entry = json.readTree(body);
        JsonNode details = entry.path("details");
        return entry.path("what").asString("").equals(RESTORED)
                ? Optional.of(new Verification.Gap(details.path("from").asLong(), details.path("to").asLong(),
                        Instant.parse(details.path("last at").asString())))
                : Optional.empty();
    }

    private void keepGood(AuditMapper.HeadRow row, String where, List<TreeHead> heads, List<String> findings) {
        TreeHead head = new TreeHead(row.size(), row.root(), Instant.parse(row.at()));
        if (key.good(head, row.signature())) {
            heads.add(head);
        } else {
            findings.add("the tree head for " + row.size() + " entries " + where + " has a wrong signature");
        }
    }

    private List<String> lines() {
        try {
            return key.lines();
        } catch (IOException failed) {
            throw new UncheckedIOException("the file of tree heads cannot be read", failed);
        }
    }

    private static Optional<AuditMapper.HeadRow> readHead(String line) {
        String[] parts = line.split(" ");
        return parts.length == 4 && parts[0].matches("[0-9]{1,18}")
                ? Optional.of(new AuditMapper.HeadRow(Long.parseLong(parts[0]), parts[1], parts[2], parts[3]))
                : Optional.empty();
    }

    /** All leaves in order, read in parts. */
    private final class Leaves implements Iterator<Verification.Leaf> {
        private final Stated stated;
        private final List<Verification.Gap> gaps;
        private List<AuditMapper.LeafRow> part = mapper.leaves(0);
        private int at;

        Leaves(Stated stated, List<Verification.Gap> gaps) {
            this.stated = stated;
            this.gaps = gaps;
        }

        @Override
        public boolean hasNext() {
            if (at == part.size() && !part.isEmpty()) {
                part = mapper.leaves(part.getLast().position() + 1);
                at = 0;
            }
            return at < part.size();
        }

        @Override
        public Verification.Leaf next() {
            if (!hasNext()) {
                throw new NoSuchElementException();
            }
            AuditMapper.LeafRow row = part.get(at++);
            Optional.ofNullable(row.body()).ifPresent(body -> {
                states(body, stated);
                gap(body).ifPresent(gaps::add);
            });
            return new Verification.Leaf(row.position(), HexFormat.of().parseHex(row.leafHash()),
                    Optional.ofNullable(row.body()));
        }
    }
}

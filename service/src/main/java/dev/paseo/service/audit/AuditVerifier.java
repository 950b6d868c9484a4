package dev.paseo.service.audit;

import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.audit.Verification;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Verifies the service's own audit trail, against the heads of the database and those of the file outside it. */
@Component
class AuditVerifier {

    private final AuditMapper mapper;
    private final HeadKey key;

    AuditVerifier(AuditMapper mapper, HeadKey key) {
        this.mapper = mapper;
        this.key = key;
    }

    Verification.Report verify() {
        List<String> findings = new ArrayList<>();
        List<TreeHead> heads = new ArrayList<>();
        mapper.heads().forEach(row -> keepGood(row, "of the database", heads, findings));
        lines().forEach(line -> readHead(line).ifPresentOrElse(row -> keepGood(row, "of the file", heads, findings),
                () -> findings.add("a line of the file of tree heads cannot be read")));
        long stray = mapper.strayCount();
        if (stray > 0) {
            findings.add(stray + " entries have lost their number and are not waiting for one");
        }
        Verification.Report report = Verification.verify(new Leaves(), heads, mapper.pendingCount());
        findings.addAll(report.findings());
        return new Verification.Report(report.entries(), report.covered(), report.notCovered(), List.copyOf(findings));
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
                ? Optional.of(new AuditMapper.HeadRow(Long.parseLong(parts[0]), parts[1], parts[2], parts[3])) : Optional.empty();
    }

    /** All leaves in order, read in parts. */
    private final class Leaves implements Iterator<Verification.Leaf> {
        private List<AuditMapper.LeafRow> part = mapper.leaves(0);
        private int at;

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
            return new Verification.Leaf(row.position(), HexFormat.of().parseHex(row.leafHash()), Optional.ofNullable(row.body()));
        }
    }
}

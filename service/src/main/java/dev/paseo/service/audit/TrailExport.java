package dev.paseo.service.audit;

import dev.paseo.core.audit.Blocks;
import dev.paseo.core.audit.Exported;
import dev.paseo.core.audit.Proofs;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.problem.Refusal;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The trail as others take it away, and what proves it to them. */
@Component
public class TrailExport {

    /** Between so many entries stands at least one signed head. */
    private static final long HEADS = 10_000;

    private final AuditMapper mapper;
    private final SignedHeads key;
    private final Blocks blocks;

    /**
     * A signed tree head.
     *
     * @param size      how many entries it covers
     * @param root      the root hash, in hexadecimal
     * @param signature Ed25519 (RFC 8032), in Base64, over the lines {@code paseo tree head 1}, size, root and at
     * @param key       the service's public key (SubjectPublicKeyInfo, RFC 8410), in Base64; where it was renewed, the
     *                  first one, and a line for each after it: key, moment, and signature by the key before
     */
    public record HeadView(long size, String root, Instant at, String signature, String key) {

        /** As an export and {@code paseo audit head} write it. */
        public String line() {
            return new Exported.Head(new TreeHead(size, root, at), signature).line();
        }
    }

    TrailExport(AuditMapper mapper, SignedHeads key) {
        this.mapper = mapper;
        this.key = key;
        this.blocks = new Blocks((from, to) -> mapper.leafHashesAmong(from, to).stream()
                .map(HexFormat.of()::parseHex).toList());
    }

    /** The newest signed head. */
    Exported.Head head() {
        return newest().orElseThrow(() -> Refusal.conflict("Nothing is in the audit trail yet"));
    }

    HeadView view(Exported.Head head) {
        return new HeadView(head.head().size(), head.head().root(), head.head().at(), head.signature(), key());
    }

    /** The newest signed head, as others keep it; empty while nothing is in the trail. */
    public Optional<HeadView> newestHead() {
        return newest().map(this::view);
    }

    private Optional<Exported.Head> newest() {
        return mapper.newestHead().map(TrailExport::head);
    }

    private static Exported.Head head(AuditMapper.HeadRow row) {
        return new Exported.Head(new TreeHead(row.size(), row.root(), Instant.parse(row.at())), row.signature());
    }

    String key() {
        return key.ring().text();
    }

    AuditMapper.ReadRow entry(long position) {
        return mapper.at(position).orElseThrow(() -> Refusal.notFound("The audit trail has no entry " + position));
    }

    /** The path from an entry to the root of a head that covers it. */
    List<String> inclusion(long position, TreeHead head) {
        if (position >= head.size()) {
            throw Refusal.conflict("No signed head covers entry " + position + " yet; try again");
        }
        return hexadecimal(Proofs.inclusion(position, head.size(), blocks));
    }

    /** What shows that a tree of so many entries is the beginning of that of a head. */
    List<String> consistency(long from, TreeHead head) {
        if (from < 1 || from > head.size()) {
            throw Refusal.invalid("/from", "should be a size from 1 to " + head.size() + "; got " + from);
        }
        return hexadecimal(Proofs.consistency(from, head.size(), blocks));
    }

    private static List<String> hexadecimal(List<byte[]> hashes) {
        return hashes.stream().map(HexFormat.of()::formatHex).toList();
    }

    /** The position of the first entry from a second on; where there is none, that of the next one. */
    long firstSince(String second) {
        return mapper.firstSince(second).or(() -> newest().map(head -> head.head().size())).orElse(0L);
    }

    /** What is taken away: entries from a position up to what the newest head covers. */
    record Part(long from, long to) {}

    Part part(long from) {
        long to = newest().map(head -> head.head().size()).orElse(0L);
        if (from < 0 || from > to) {
            throw Refusal.invalid("/from", "should be a position from 0 to " + to + "; got " + from);
        }
        return new Part(from, to);
    }

    void write(Part part, OutputStream out) throws IOException {
        KeyRing ring = key.ring();
        line(out, new Exported.Start(part.from(), roots(part.from()), ring.first()));
        for (KeyRing.Renewal renewal : ring.renewals()) {
            line(out, new Exported.Renewed(renewal));
        }
        Iterator<Exported.Head> heads = mapper.headsAmong(part.from(), part.to(), HEADS).stream().map(TrailExport::head)
                .iterator();
        long next = part.from();
        Exported.@Nullable Head head = heads.hasNext() ? heads.next() : null;
        while (next < part.to()) {
            long before = next;
            for (AuditMapper.LeafRow row : mapper.leaves(next)) {
                if (next == part.to() || row.position() != next || row.body() == null) {
                    break;
                }
                line(out, new Exported.Entry(row.body(), row.leafHash(), row.position()));
                next++;
                while (head != null && head.head().size() == next) {
                    line(out, head);
                    head = heads.hasNext() ? heads.next() : null;
                }
            }
            if (next == before) {
                // What is missing in the database is missing in the export, which has no end then.
                return;
            }
        }
        line(out, new Exported.End(part.to()));
    }

    private List<byte[]> roots(long size) {
        List<byte[]> roots = new ArrayList<>();
        long from = 0;
        while (from < size) {
            long width = Long.highestOneBit(size - from);
            roots.add(blocks.root(from, from + width));
            from += width;
        }
        return roots;
    }

    private static void line(OutputStream out, Exported exported) throws IOException {
        out.write((exported.line() + "\n").getBytes(StandardCharsets.UTF_8));
    }
}

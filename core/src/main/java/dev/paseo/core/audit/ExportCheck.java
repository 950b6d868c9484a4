package dev.paseo.core.audit;

import dev.paseo.core.signature.Ed25519;
import dev.paseo.core.signature.KeyRing;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;

/** Verifies a trail that was taken away, by itself: no service is asked. */
public final class ExportCheck {

    private static final int MOST_FINDINGS = 20;

    /**
     * What came out.
     *
     * @param from     the position of the first entry
     * @param size     how many entries the tree has where the export ends
     * @param entries  how many of them were read
     * @param covered  how many of the tree's entries a good signed head covers
     * @param keyPrint SHA-256 of the newest key by which signatures were verified, in hexadecimal; empty: none
     * @param findings what is wrong, each a sentence
     */
    public record Checked(long from, long size, long entries, long covered, String keyPrint, List<String> findings) {
        public boolean passed() {
            return findings.isEmpty();
        }

        /** Whether only its end is missing: it can be gone on from. */
        public boolean cutShort() {
            return !findings.isEmpty() && findings.getFirst().startsWith(CUT_SHORT);
        }
    }

    private static final String CUT_SHORT = "it is cut short";

    private final Optional<KeyRing> given;
    private final List<Exported.Head> kept;
    private final List<String> findings = new ArrayList<>();
    private MerkleTree tree = new MerkleTree();
    private long from;
    private long entries;
    private long covered;
    private long since;
    private Optional<KeyRing> named = Optional.empty();
    private Optional<KeyRing> trusted;
    private boolean broken;
    private boolean ended;

    private ExportCheck(Optional<KeyRing> given, List<Exported.Head> kept) {
        this.given = given;
        this.trusted = given;
        this.kept = kept;
    }

    /**
     * Reads all lines.
     *
     * @param lines    without their ends
     * @param given    the service's keys where they are known from elsewhere, as {@link KeyRing#of} reads them, or one
     *                 of them: it and those behind it are believed; else those in the export are
     * @param kept     heads that somebody kept elsewhere, which the export has to agree with
     * @throws IllegalArgumentException where {@code given} is no key
     */
    public static Checked check(Iterator<String> lines, Optional<String> given, List<Exported.Head> kept) {
        ExportCheck check = new ExportCheck(given.map(KeyRing::of), kept);
        long line = 0;
        while (lines.hasNext()) {
            line++;
            check.read(lines.next(), line);
        }
        return check.result(line);
    }

    /** What the export names is believed as far as it goes on from a key that is trusted. */
    private void name(KeyRing ring) {
        named = Optional.of(ring);
        trusted = Optional.of(ring.believed(given));
    }

    private boolean isSigned(Exported.Head head, Optional<KeyRing> by) {
        return by.isPresent() && by.get().good(head.head().bytes(), head.head().at(), head.signature());
    }

    /** Who signed a head: one by a key from before the trusted one proves nothing, but is no other service's. */
    private enum By {
        TRUSTED, EARLIER, NOBODY
    }

    private By by(Exported.Head head) {
        return trusted.isEmpty() ? By.EARLIER : isSigned(head, trusted) ? By.TRUSTED
                : !trusted.equals(named) && isSigned(head, named) ? By.EARLIER : By.NOBODY;
    }

    private void read(String text, long line) {
        Optional<Exported> read = Exported.read(text);
        if (ended) {
            note("line " + line + " stands behind the end");
        } else if (read.isEmpty()) {
            note("line " + line + " is in no form that an export has: it was changed or cut");
            broken = true;
        } else if (line == 1 != read.get() instanceof Exported.Start) {
            note(line == 1 ? "the first line is not the beginning of an export"
                    : "line " + line + " begins an export in the middle of one");
            broken = true;
        } else {
            switch (read.get()) {
                case Exported.Start start -> start(start);
                case Exported.Renewed renewed -> renewed(renewed.renewal(), line);
                case Exported.Entry entry -> entry(entry, line);
                case Exported.Head head -> head(head, line);
                case Exported.End end -> end(end);
            }
        }
    }

    private void start(Exported.Start start) {
        if (Long.bitCount(start.from()) != start.left().size()) {
            note("the beginning does not say what stands before entry " + start.from());
            broken = true;
            return;
        }
        tree = MerkleTree.of(start.from(), start.left());
        from = start.from();
        since = from;
        try {
            name(new KeyRing(start.key(), List.of()));
        } catch (IllegalArgumentException none) {
            note("the key in the beginning is none");
        }
        compareKept();
    }

    private void renewed(KeyRing.Renewal renewal, long line) {
        if (named.isPresent() && !named.get().renewals().contains(renewal)) {
            try {
                name(named.get().with(renewal));
            } catch (IllegalArgumentException none) {
                note("line " + line + " renews the key, and the key before it has not signed that");
            }
        }
    }

    private void entry(Exported.Entry entry, long line) {
        long expected = tree.size();
        if (entry.position() != expected) {
            note("line " + line + " is entry " + entry.position() + " where entry " + expected
                    + " should stand: one was left out, put in, or two were swapped");
            broken = true;
        }
        byte[] hash = MerkleTree.leafHash(entry.body().getBytes(StandardCharsets.UTF_8));
        if (!HexFormat.of().formatHex(hash).equals(entry.leaf())) {
            note("entry " + entry.position() + " (line " + line
                    + ") was changed: it does not agree with its leaf hash");
            broken = true;
        }
        tree.add(hash);
        entries++;
        compareKept();
    }

    private void head(Exported.Head head, long line) {
        By by = by(head);
        if (by == By.NOBODY) {
            note("the head of " + head.head().size() + " entries (line " + line + ") is not signed by " + key());
            return;
        }
        if (head.head().size() != tree.size()) {
            note("line " + line + " is the head of " + head.head().size() + " entries, behind " + tree.size());
        } else if (!agrees(head)) {
            disagrees("the signed head of " + head.head().size() + " entries");
        } else if (by == By.TRUSTED) {
            covered = tree.size();
            since = covered;
        }
    }

    private boolean agrees(Exported.Head head) {
        return head.head().root().equals(HexFormat.of().formatHex(tree.root()));
    }

    /** What is found already explains why a root differs. */
    private void disagrees(String with) {
        if (!broken) {
            note("an entry from " + since + " to " + (tree.size() - 1) + " was changed together with its leaf hash: "
                    + "the tree does not agree with " + with);
            broken = true;
        }
    }

    private void compareKept() {
        kept.stream().filter(head -> head.head().size() == tree.size()).filter(head -> !agrees(head))
                .forEach(head -> note("the head of " + head.head().size()
                        + " entries that was kept elsewhere is of another trail, or this one was changed"));
    }

    private void end(Exported.End end) {
        ended = true;
        if (end.size() != tree.size() && !broken) {
            note("the end tells of " + end.size() + " entries, but " + tree.size() + " are there");
        }
    }

    private Checked result(long lines) {
        if (lines == 0) {
            note("there is nothing in it");
        } else if (!ended) {
            note(CUT_SHORT + " behind "
                    + (entries == 0 ? "its beginning" : "entry " + (tree.size() - 1)) + ": its last line is missing");
        }
        if (given.isPresent() && named.isPresent() && named.get().from(given.get()).isEmpty()) {
            findings.addFirst("the export names another key than the one that was given: it is of another service, or "
                    + "was changed");
        }
        if (findings.isEmpty() && entries > 0 && covered < tree.size()) {
            note("no signed head covers the entries from " + Math.max(covered, from) + " on");
        }
        kept.forEach(head -> {
            if (by(head) == By.NOBODY) {
                note("the head of " + head.head().size() + " entries that was kept elsewhere is not signed by "
                        + key());
            } else if (head.head().size() > tree.size() || head.head().size() < from && isNoneWithin()) {
                note("the head of " + head.head().size() + " entries that was kept elsewhere lies outside of this "
                        + "export, which has entries " + from + " to " + (tree.size() - 1));
            }
        });
        return new Checked(from, tree.size(), entries, covered, trusted
                .map(ring -> Ed25519.print(Ed25519.key(ring.newest()))).orElse(""), List.copyOf(findings));
    }

    private boolean isNoneWithin() {
        return kept.stream().noneMatch(head -> head.head().size() >= from && head.head().size() <= tree.size());
    }

    private String key() {
        return named.stream().allMatch(ring -> ring.renewals().isEmpty()) ? "this key"
                : "a key that was in force when it says";
    }

    private void note(String finding) {
        if (findings.size() < MOST_FINDINGS) {
            findings.add(finding);
        }
    }
}

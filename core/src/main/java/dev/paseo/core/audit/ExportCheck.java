package dev.paseo.core.audit;

import dev.paseo.core.signature.Ed25519;
import dev.paseo.core.text.Sha256;
import java.nio.charset.StandardCharsets;
import java.security.PublicKey;
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
     * @param keyPrint SHA-256 of the key by which signatures were verified, in hexadecimal; empty: none was there
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

    private final Optional<String> givenKey;
    private final List<Exported.Head> kept;
    private final List<String> findings = new ArrayList<>();
    private MerkleTree tree = new MerkleTree();
    private long from;
    private long entries;
    private long covered;
    private long since;
    private Optional<PublicKey> key = Optional.empty();
    private String keyPrint = "";
    private boolean broken;
    private boolean ended;

    private ExportCheck(Optional<String> givenKey, List<Exported.Head> kept) {
        this.givenKey = givenKey;
        this.kept = kept;
    }

    /**
     * Reads all lines.
     *
     * @param lines    without their ends
     * @param givenKey the service's public key where it is known from elsewhere; else the one in the export is believed
     * @param kept     heads that somebody kept elsewhere, which the export has to agree with
     * @throws IllegalArgumentException where {@code givenKey} is no key
     */
    public static Checked check(Iterator<String> lines, Optional<String> givenKey, List<Exported.Head> kept) {
        ExportCheck check = new ExportCheck(givenKey, kept);
        givenKey.ifPresent(check::believe);
        long line = 0;
        while (lines.hasNext()) {
            line++;
            check.read(lines.next(), line);
        }
        return check.result(line);
    }

    private void believe(String text) {
        key = Optional.of(Ed25519.key(text));
        keyPrint = Ed25519.print(key.get());
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
        if (givenKey.isEmpty()) {
            try {
                believe(start.key());
            } catch (IllegalArgumentException none) {
                note("the key in the beginning is none");
            }
        } else if (!start.key().equals(givenKey.get().strip())) {
            note("the export names another key than the one that was given: it is of another service, or was changed");
        }
        compareKept();
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
        if (key.isPresent() && !Ed25519.good(key.get(), head.head().bytes(), head.signature())) {
            note("the head of " + head.head().size() + " entries (line " + line + ") is not signed by this key");
            return;
        }
        if (head.head().size() != tree.size()) {
            note("line " + line + " is the head of " + head.head().size() + " entries, behind " + tree.size());
        } else if (!agrees(head)) {
            disagrees("the signed head of " + head.head().size() + " entries");
        } else if (key.isPresent()) {
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
        if (findings.isEmpty() && entries > 0 && covered < tree.size()) {
            note("no signed head covers the entries from " + Math.max(covered, from) + " on");
        }
        kept.forEach(head -> {
            if (key.isPresent() && !Ed25519.good(key.get(), head.head().bytes(), head.signature())) {
                note("the head of " + head.head().size()
                        + " entries that was kept elsewhere is not signed by this key");
            } else if (head.head().size() < from || head.head().size() > tree.size()) {
                note("the head of " + head.head().size() + " entries that was kept elsewhere lies outside of this "
                        + "export, which has entries " + from + " to " + (tree.size() - 1));
            }
        });
        return new Checked(from, tree.size(), entries, covered, keyPrint, List.copyOf(findings));
    }

    private void note(String finding) {
        if (findings.size() < MOST_FINDINGS) {
            findings.add(finding);
        }
    }
}

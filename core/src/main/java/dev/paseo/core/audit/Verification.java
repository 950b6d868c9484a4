package dev.paseo.core.audit;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Verifies an audit trail: each entry against its leaf, the leaves against every signed tree head. */
public final class Verification {

    private static final int MOST_FINDINGS = 20;

    private Verification() {}

    /** A numbered entry; the body is missing where its row is gone. */
    public record Leaf(long position, byte[] hash, Optional<String> body) {}

    /**
     * What came out.
     *
     * @param entries    how many entries are numbered
     * @param covered    how many of them a signed tree head covers
     * @param notCovered entries that have no number yet
     */
    public record Report(long entries, long covered, long notCovered, List<String> findings) {
        public boolean passed() {
            return findings.isEmpty();
        }
    }

    /** @param heads the signed tree heads whose signatures were found good, in any order */
    public static Report verify(Iterator<Leaf> leaves, List<TreeHead> heads, long notNumbered) {
        Map<Long, List<TreeHead>> bySize = new TreeMap<>();
        heads.forEach(head -> bySize.computeIfAbsent(head.size(), size -> new ArrayList<>()).add(head));
        List<String> findings = new ArrayList<>();
        MerkleTree tree = new MerkleTree();
        long expected = 0;
        while (leaves.hasNext()) {
            Leaf leaf = leaves.next();
            if (leaf.position() != expected) {
                note(findings, "entries " + expected + " to " + (leaf.position() - 1) + " are missing from the tree");
            }
            expected = leaf.position() + 1;
            check(leaf, findings);
            tree.add(leaf.hash());
            bySize.getOrDefault(tree.size(), List.of()).forEach(head -> compare(tree, head, findings));
        }
        long signed = bySize.keySet().stream().mapToLong(Long::longValue).max().orElse(0);
        if (signed > tree.size()) {
            note(findings, "a signed tree head covers " + signed + " entries, but only " + tree.size() + " are there: the last "
                    + (signed - tree.size()) + " are cut off");
        }
        return new Report(tree.size(), Math.min(signed, tree.size()), notNumbered + Math.max(0, tree.size() - signed), List.copyOf(findings));
    }

    private static void check(Leaf leaf, List<String> findings) {
        if (leaf.body().isEmpty()) {
            note(findings, "entry " + leaf.position() + " is removed");
        } else if (!Arrays.equals(MerkleTree.leafHash(leaf.body().get().getBytes(StandardCharsets.UTF_8)), leaf.hash())) {
            note(findings, "entry " + leaf.position() + " was changed: it does not agree with its leaf");
        }
    }

    private static void compare(MerkleTree tree, TreeHead head, List<String> findings) {
        if (!HexFormat.of().formatHex(tree.root()).equals(head.root())) {
            note(findings, "the tree of the first " + head.size() + " entries does not agree with the head signed at " + head.at());
        }
    }

    private static void note(List<String> findings, String finding) {
        if (findings.size() < MOST_FINDINGS) {
            findings.add(finding);
        }
    }
}

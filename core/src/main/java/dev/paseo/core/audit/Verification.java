package dev.paseo.core.audit;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.function.Supplier;

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
     * @param restored   what is not there any more since the database was restored from an older copy, acknowledged by
     *                   somebody
     */
    public record Report(long entries, long covered, long notCovered, List<String> findings, List<String> restored) {
        public boolean passed() {
            return findings.isEmpty();
        }
    }

    /**
     * What a restore from an older copy took away.
     *
     * @param from   how many entries were there before and after it
     * @param to     how many there were before it
     * @param lastAt when the last head was signed of which nothing is left
     */
    public record Gap(long from, long to, Instant lastAt) {

        private boolean explains(TreeHead head) {
            return head.size() > from && head.size() <= to && !head.at().isAfter(lastAt);
        }

        private String words() {
            return "entries " + from + " to " + (to - 1) + ", up to " + lastAt
                    + ", were lost when the database was restored from an older copy; this was acknowledged";
        }
    }

    /**
     * The gap that would explain what is wrong with the heads; empty where nothing is, or where no restore explains it.
     */
    public static Optional<Gap> gap(Iterator<Leaf> leaves, List<TreeHead> heads, List<Gap> acknowledged) {
        List<TreeHead> wrong = new ArrayList<>();
        MerkleTree tree = new MerkleTree();
        Map<Long, List<TreeHead>> bySize = bySize(heads);
        List<TreeHead> good = new ArrayList<>();
        while (leaves.hasNext()) {
            tree.add(leaves.next().hash());
            bySize.getOrDefault(tree.size(), List.of()).forEach(head -> (agrees(tree, head) ? good : wrong).add(head));
        }
        heads.stream().filter(head -> head.size() > tree.size()).forEach(wrong::add);
        wrong.removeIf(head -> acknowledged.stream().anyMatch(gap -> gap.explains(head)));
        if (wrong.isEmpty()) {
            return Optional.empty();
        }
        long first = wrong.stream().mapToLong(TreeHead::size).min().orElseThrow();
        long from = good.stream().mapToLong(TreeHead::size).filter(size -> size < first).max().orElse(0);
        Instant lastAt = wrong.stream().map(TreeHead::at).max(Instant::compareTo).orElseThrow();
        return Optional.of(new Gap(from, wrong.stream().mapToLong(TreeHead::size).max().orElseThrow(), lastAt));
    }

    private static Map<Long, List<TreeHead>> bySize(List<TreeHead> heads) {
        Map<Long, List<TreeHead>> bySize = new TreeMap<>();
        heads.forEach(head -> bySize.computeIfAbsent(head.size(), size -> new ArrayList<>()).add(head));
        return bySize;
    }

    private static boolean agrees(MerkleTree tree, TreeHead head) {
        return HexFormat.of().formatHex(tree.root()).equals(head.root());
    }

    /** @param heads the signed tree heads whose signatures were found good, in any order */
    public static Report verify(Iterator<Leaf> leaves, List<TreeHead> heads, long notNumbered) {
        return verify(leaves, heads, notNumbered, List::of);
    }

    /** @param acknowledged asked when all leaves are read, for they tell of it */
    public static Report verify(Iterator<Leaf> leaves, List<TreeHead> heads, long notNumbered,
            Supplier<List<Gap>> acknowledged) {
        Map<Long, List<TreeHead>> bySize = bySize(heads);
        List<TreeHead> disagreeing = new ArrayList<>();
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
            bySize.getOrDefault(tree.size(), List.of()).stream().filter(head -> !agrees(tree, head))
                    .forEach(disagreeing::add);
        }
        List<Gap> gaps = acknowledged.get();
        Predicate<TreeHead> explained = head -> gaps.stream().anyMatch(gap -> gap.explains(head));
        disagreeing.stream().filter(explained.negate()).forEach(head -> note(findings, "the tree of the first "
                + head.size() + " entries does not agree with the head signed at " + head.at()));
        long signed = heads.stream()
                .filter(head -> head.size() <= tree.size() && !disagreeing.contains(head)
                        || head.size() > tree.size() && !explained.test(head))
                .mapToLong(TreeHead::size).max().orElse(0);
        if (signed > tree.size()) {
            note(findings,
                    "a signed tree head covers " + signed + " entries, but only " + tree.size()
                            + " are there: the last "
                            + (signed - tree.size()) + " are cut off");
        }
        return new Report(tree.size(), Math.min(signed, tree.size()), notNumbered + Math.max(0, tree.size() - signed),
                List.copyOf(findings), gaps.stream().map(Gap::words).toList());
    }

    private static void check(Leaf leaf, List<String> findings) {
        if (leaf.body().isEmpty()) {
            note(findings, "entry " + leaf.position() + " is removed");
        } else if (!Arrays.equals(MerkleTree.leafHash(leaf.body().get().getBytes(StandardCharsets.UTF_8)),
                leaf.hash())) {
            note(findings, "entry " + leaf.position() + " was changed: it does not agree with its leaf");
        }
    }

    private static void note(List<String> findings, String finding) {
        if (findings.size() < MOST_FINDINGS) {
            findings.add(finding);
        }
    }
}

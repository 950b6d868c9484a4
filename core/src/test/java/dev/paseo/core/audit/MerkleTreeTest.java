package dev.paseo.core.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MerkleTreeTest {

    private static final Instant NOON = Instant.parse("2026-11-23T12:00:00Z");

    /** The entries and roots that certificate transparency logs test with. */
    @ParameterizedTest
    @CsvSource({
            "0, e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855",
            "1, 6e340b9cffb37a989ca544e6bb780a2c78901d3fb33738768511a30617afa01d",
            "2, fac54203e7cc696cf0dfcb42c92a1d9dbaf70ad9e621f4bd8d98662f00e3c125",
            "3, aeb6bcfe274b70a14fb067a5e5578264db0fa9b51af5e0ba159158f329e06e77",
            "7, ddb89be403809e325750d3d263cd78929c2942b7942a34b77e122c9594a74c8c",
            "8, 5dc9da79a70659a9ad559cb701ded9a2ab9d823aad2f4960cfe370eff4604328"})
    void rootsAreThoseOfTheStandard(int size, String root) {
        String[] entries = {"", "00", "10", "2021", "3031", "40414243", "5051525354555657",
                "606162636465666768696a6b6c6d6e6f"};
        MerkleTree tree = new MerkleTree();
        for (int at = 0; at < size; at++) {
            tree.add(MerkleTree.leafHash(HexFormat.of().parseHex(entries[at])));
        }
        assertEquals(root, HexFormat.of().formatHex(tree.root()));
    }

    private final List<Verification.Leaf> leaves = new ArrayList<>();
    private final List<TreeHead> heads = new ArrayList<>();

    private void trail(int size) {
        MerkleTree tree = new MerkleTree();
        for (int at = 0; at < size; at++) {
            String body = "{\"entry\":" + at + "}";
            byte[] hash = MerkleTree.leafHash(body.getBytes(StandardCharsets.UTF_8));
            leaves.add(new Verification.Leaf(at, hash, Optional.of(body)));
            tree.add(hash);
            if (at % 3 == 2) {
                heads.add(new TreeHead(tree.size(), HexFormat.of().formatHex(tree.root()), NOON));
            }
        }
    }

    private Verification.Report verify() {
        return Verification.verify(leaves.iterator(), heads, 0);
    }

    @Test
    void anUnalteredTrailPassesAndSaysWhatIsNotCovered() {
        trail(10);
        assertTrue(verify().passed());
        assertEquals(9, verify().covered());
        assertEquals(1, verify().notCovered());
    }

    @Test
    void aChangedByteIsFound() {
        trail(9);
        leaves.set(4, new Verification.Leaf(4, leaves.get(4).hash(), Optional.of("{\"entry\":5}")));
        assertEquals(List.of("entry 4 was changed: it does not agree with its leaf"), verify().findings());
    }

    @Test
    void aChangedEntryWhoseLeafWasChangedWithItIsFoundByTheHead() {
        trail(9);
        leaves.set(4,
                new Verification.Leaf(4, MerkleTree.leafHash("x".getBytes(StandardCharsets.UTF_8)), Optional.of("x")));
        assertEquals(2, verify().findings().size());
    }

    @Test
    void aRemovedRowIsFound() {
        trail(9);
        leaves.set(4, new Verification.Leaf(4, leaves.get(4).hash(), Optional.empty()));
        assertEquals(List.of("entry 4 is removed"), verify().findings());
    }

    @Test
    void aRemovedLeafIsFound() {
        trail(9);
        leaves.remove(4);
        assertEquals("entries 4 to 4 are missing from the tree", verify().findings().getFirst());
    }

    /** The copy had six entries; two others were written since. */
    @Test
    void aRestoreThatIsAcknowledgedIsNamedAndNoFaultAndExplainsNothingElse() {
        trail(9);
        List<TreeHead> lost = List.copyOf(heads);
        while (leaves.size() > 6) {
            leaves.removeLast();
        }
        for (String since : List.of("x", "y", "z", "zz")) {
            leaves.add(new Verification.Leaf(leaves.size(), MerkleTree.leafHash(since.getBytes(StandardCharsets.UTF_8)),
                    Optional.of(since)));
        }
        assertEquals(List.of("the tree of the first 9 entries does not agree with the head signed at " + NOON),
                verify().findings());
        Verification.Gap gap = Verification.gap(leaves.iterator(), lost, List.of()).orElseThrow();
        assertEquals(new Verification.Gap(6, 9, NOON), gap);
        Verification.Report report = Verification.verify(leaves.iterator(), heads, 0, () -> List.of(gap));
        assertEquals(List.of(), report.findings());
        assertEquals(
                List.of("entries 6 to 8, up to " + NOON
                        + ", were lost when the database was restored from an older copy; this was acknowledged"),
                report.restored());
        assertEquals(Optional.empty(), Verification.gap(leaves.iterator(), heads, List.of(gap)));
        heads.add(new TreeHead(12, "0".repeat(64), NOON.plusSeconds(1)));
        assertEquals(1, Verification.verify(leaves.iterator(), heads, 0, () -> List.of(gap)).findings().size(),
                "what is cut off later is found");
    }

    @Test
    void aTailThatIsCutOffBehindTheSignedHeadIsFound() {
        trail(9);
        leaves.removeLast();
        assertEquals(List.of("a signed tree head covers 9 entries, but only 8 are there: the last 1 are cut off"),
                verify().findings());
    }
}

package dev.paseo.core.audit;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ProofsTest {

    private static final int MOST = 70;

    private int reads;

    private static byte[] leaf(long index) {
        return MerkleTree.leafHash(("entry " + index).getBytes(StandardCharsets.UTF_8));
    }

    private final Blocks blocks = new Blocks((from, to) -> {
        reads++;
        return LongStream.range(from, to).mapToObj(ProofsTest::leaf).toList();
    });

    private static final Map<Long, byte[]> ROOTS = new ConcurrentHashMap<>();

    private static byte[] root(long size) {
        return ROOTS.computeIfAbsent(size, entries -> {
            MerkleTree tree = new MerkleTree();
            LongStream.range(0, entries).forEach(index -> tree.add(leaf(index)));
            return tree.root();
        });
    }

    /** The same path with something wrong in it: each of these is no proof. */
    private static List<List<byte[]>> wrong(List<byte[]> path) {
        List<List<byte[]>> all = new ArrayList<>();
        for (int at = 0; at < path.size(); at++) {
            List<byte[]> changed = new ArrayList<>(path);
            changed.set(at, leaf(-1));
            all.add(changed);
            List<byte[]> shorter = new ArrayList<>(path);
            shorter.remove(at);
            all.add(shorter);
        }
        List<byte[]> longer = new ArrayList<>(path);
        longer.add(leaf(-1));
        all.add(longer);
        return all;
    }

    @Test
    void eachEntryIsProvedInEachTreeAndNowhereElse() {
        for (int size = 1; size <= MOST; size++) {
            byte[] root = root(size);
            for (int index = 0; index < size; index++) {
                List<byte[]> path = Proofs.inclusion(index, size, blocks);
                assertTrue(Proofs.includes(leaf(index), index, size, path, root), index + " in " + size);
                assertFalse(Proofs.includes(leaf(index + 1), index, size, path, root));
                assertFalse(Proofs.includes(leaf(index), index, size, path, leaf(-1)));
                assertFalse(Proofs.includes(leaf(index), index + 1, size, path, root), index + 1 + " in " + size);
                for (List<byte[]> other : wrong(path)) {
                    assertFalse(Proofs.includes(leaf(index), index, size, other, root));
                }
            }
        }
    }

    @Test
    void eachTreeIsTheBeginningOfEachLaterOne() {
        for (int second = 1; second <= MOST; second++) {
            for (int first = 1; first <= second; first++) {
                List<byte[]> path = Proofs.consistency(first, second, blocks);
                String which = first + " of " + second;
                assertTrue(Proofs.isConsistent(first, root(first), second, root(second), path), which);
                assertFalse(Proofs.isConsistent(first, leaf(-1), second, root(second), path), which);
                assertFalse(Proofs.isConsistent(first, root(first), second, leaf(-1), path), which);
                for (List<byte[]> other : wrong(path)) {
                    assertFalse(Proofs.isConsistent(first, root(first), second, root(second), other), which);
                }
            }
        }
        assertFalse(Proofs.isConsistent(0, root(0), 1, root(1), List.of()));
        assertFalse(Proofs.isConsistent(2, root(2), 1, root(1), List.of()));
    }

    /** The example of RFC 9162, section 2.1.5: the path of the entry 3 of 7, and of the entry 6. */
    @Test
    void thePathsAreThoseOfTheStandard() {
        List<byte[]> path = Proofs.inclusion(3, 7, blocks);
        assertEquals(3, path.size());
        assertArrayEquals(leaf(2), path.get(0));
        assertArrayEquals(blocks.root(0, 2), path.get(1));
        assertArrayEquals(blocks.root(4, 7), path.get(2));
        assertEquals(2, Proofs.inclusion(6, 7, blocks).size());
        assertEquals(4, Proofs.consistency(3, 7, blocks).size());
        assertEquals(1, Proofs.consistency(4, 7, blocks).size());
        assertEquals(3, Proofs.consistency(6, 7, blocks).size());
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 1023, 1024, 1025, 2048, 3000, 5000})
    void blocksAddUpToTheTree(long size) {
        assertArrayEquals(root(size), blocks.root(0, size));
    }

    @Test
    void whatIsCompleteIsReadOnce() {
        long size = 9 * 1024 + 5;
        blocks.root(0, size);
        reads = 0;
        Proofs.inclusion(4321, size, blocks);
        assertTrue(reads <= 13, "one block for the leaf and what is beside it, the rest at the right: " + reads);
        Blocks lost = new Blocks((from, to) -> List.of());
        assertThrows(IllegalStateException.class, () -> lost.root(0, 2));
    }

    @Test
    void whatIsNotThereHasNoProof() {
        assertThrows(IllegalArgumentException.class, () -> Proofs.inclusion(7, 7, blocks));
        assertThrows(IllegalArgumentException.class, () -> Proofs.inclusion(-1, 7, blocks));
        assertThrows(IllegalArgumentException.class, () -> Proofs.consistency(0, 7, blocks));
        assertThrows(IllegalArgumentException.class, () -> Proofs.consistency(8, 7, blocks));
    }

    @Test
    void aTreeGoesOnFromItsCompleteSubtrees() {
        for (int size = 0; size <= MOST; size++) {
            MerkleTree whole = new MerkleTree();
            LongStream.range(0, size).forEach(index -> whole.add(leaf(index)));
            MerkleTree rest = MerkleTree.of(size, whole.roots());
            assertArrayEquals(whole.root(), rest.root());
            whole.add(leaf(size));
            rest.add(leaf(size));
            assertArrayEquals(whole.root(), rest.root());
            assertEquals(size + 1, rest.size());
        }
        assertThrows(IllegalArgumentException.class, () -> MerkleTree.of(3, List.of(leaf(0))));
    }
}

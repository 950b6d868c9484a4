package dev.paseo.core.audit;

import dev.paseo.core.text.Sha256;
import java.security.MessageDigest;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;

/**
 * The Merkle tree of RFC 9162, section 2.1, over SHA-256, grown leaf by leaf. It keeps the roots of its complete
 * subtrees only, so that its size in memory is logarithmic in the number of leaves.
 */
public final class MerkleTree {

    private record Subtree(int height, byte[] hash) {}

    private final Deque<Subtree> subtrees = new ArrayDeque<>();
    private long size;

    /** The hash of a leaf: SHA-256 over 0x00 and the entry. */
    public static byte[] leafHash(byte[] entry) {
        MessageDigest digest = Sha256.digest();
        digest.update((byte) 0);
        return digest.digest(entry);
    }

    /**
     * A tree of so many leaves, of which only the roots of its complete subtrees are known.
     *
     * @param roots the largest first: one for each bit that is set in {@code size}
     */
    public static MerkleTree of(long size, List<byte[]> roots) {
        if (size < 0 || roots.size() != Long.bitCount(size)) {
            throw new IllegalArgumentException(size + " leaves have " + Long.bitCount(Math.max(size, 0))
                    + " complete subtrees, not " + roots.size());
        }
        MerkleTree tree = new MerkleTree();
        long left = size;
        for (byte[] root : roots) {
            int height = Long.numberOfTrailingZeros(Long.highestOneBit(left));
            tree.subtrees.addLast(new Subtree(height, root.clone()));
            left -= Long.highestOneBit(left);
        }
        tree.size = size;
        return tree;
    }

    /** The roots of its complete subtrees, the largest first. */
    public List<byte[]> roots() {
        return subtrees.stream().map(subtree -> subtree.hash().clone()).toList();
    }

    static byte[] nodeHash(byte[] left, byte[] right) {
        MessageDigest digest = Sha256.digest();
        digest.update((byte) 1);
        digest.update(left);
        return digest.digest(right);
    }

    public void add(byte[] leafHash) {
        Subtree grown = new Subtree(0, leafHash.clone());
        while (!subtrees.isEmpty() && subtrees.peekLast().height() == grown.height()) {
            grown = new Subtree(grown.height() + 1, nodeHash(subtrees.removeLast().hash(), grown.hash()));
        }
        subtrees.addLast(grown);
        size++;
    }

    public long size() {
        return size;
    }

    /** The root hash; of an empty tree the hash of nothing. */
    public byte[] root() {
        if (subtrees.isEmpty()) {
            return Sha256.digest().digest();
        }
        Iterator<Subtree> fromRight = subtrees.descendingIterator();
        byte[] root = fromRight.next().hash();
        while (fromRight.hasNext()) {
            root = nodeHash(fromRight.next().hash(), root);
        }
        return root.clone();
    }
}

package dev.paseo.core.audit;

import dev.paseo.core.text.Sha256;
import java.security.MessageDigest;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Iterator;

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

    private static byte[] nodeHash(byte[] left, byte[] right) {
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

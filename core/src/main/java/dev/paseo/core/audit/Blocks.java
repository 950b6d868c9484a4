package dev.paseo.core.audit;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The root hashes over any leaves of a tree that only grows. Of each complete block of leaves it remembers the root, so
 * that a proof reads at most two blocks of leaves once all blocks were read.
 */
public final class Blocks implements Proofs.Ranges {

    private static final int BLOCK = 1024;

    /** Where the leaves are. */
    public interface Leaves {
        /** The hashes of the leaves from {@code from} to before {@code to}, which are there. */
        List<byte[]> read(long from, long to);
    }

    private final Leaves leaves;
    private final Map<Long, byte[]> known = new ConcurrentHashMap<>();

    public Blocks(Leaves leaves) {
        this.leaves = leaves;
    }

    @Override
    public byte[] root(long from, long to) {
        if (to - from > BLOCK) {
            long middle = from + Long.highestOneBit(to - from - 1);
            return MerkleTree.nodeHash(root(from, middle), root(middle, to));
        }
        boolean block = to - from == BLOCK && from % BLOCK == 0;
        byte[] remembered = block ? known.get(from) : null;
        if (remembered != null) {
            return remembered;
        }
        MerkleTree tree = new MerkleTree();
        leaves.read(from, to).forEach(tree::add);
        if (tree.size() != to - from) {
            throw new IllegalStateException("leaves from " + from + " to " + (to - 1) + " are not all there");
        }
        byte[] root = tree.root();
        if (block) {
            known.put(from, root);
        }
        return root;
    }
}

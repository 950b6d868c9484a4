package dev.paseo.core.audit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;

/**
 * Proofs of RFC 9162: that an entry is in a tree (section 2.1.3), and that one tree continues another (section 2.1.4).
 */
public final class Proofs {

    private Proofs() {}

    /** What a tree is made of. */
    public interface Ranges {
        /** The root hash over the leaves from {@code from} to before {@code to}, at least one. */
        byte[] root(long from, long to);
    }

    /**
     * The path from a leaf to the root, from below.
     *
     * @param index of the leaf, from 0 to below {@code size}
     */
    public static List<byte[]> inclusion(long index, long size, Ranges ranges) {
        if (index < 0 || index >= size) {
            throw new IllegalArgumentException("a tree of " + size + " entries has no entry " + index);
        }
        List<byte[]> path = new ArrayList<>();
        walk(index, 0, size, ranges, path);
        return path;
    }

    private static void walk(long index, long from, long to, Ranges ranges, List<byte[]> path) {
        if (to - from == 1) {
            return;
        }
        long middle = from + split(to - from);
        if (index < middle) {
            walk(index, from, middle, ranges, path);
            path.add(ranges.root(middle, to));
        } else {
            walk(index, middle, to, ranges, path);
            path.add(ranges.root(from, middle));
        }
    }

    /**
     * What shows that the tree of the first {@code first} leaves is the beginning of that of {@code second}.
     *
     * @param first at least 1, at most {@code second}
     */
    public static List<byte[]> consistency(long first, long second, Ranges ranges) {
        if (first < 1 || first > second) {
            throw new IllegalArgumentException(
                    "from 1 to " + second + " entries are the beginning of " + second + ", not " + first);
        }
        List<byte[]> path = new ArrayList<>();
        if (first < second) {
            walk(first, 0, second, true, ranges, path);
        }
        return path;
    }

    private static void walk(long first, long from, long to, boolean whole, Ranges ranges, List<byte[]> path) {
        if (first == to) {
            if (!whole) {
                path.add(ranges.root(from, to));
            }
            return;
        }
        long middle = from + split(to - from);
        if (first <= middle) {
            walk(first, from, middle, whole, ranges, path);
            path.add(ranges.root(middle, to));
        } else {
            walk(first, middle, to, false, ranges, path);
            path.add(ranges.root(from, middle));
        }
    }

    /** The largest power of two that is below. */
    private static long split(long size) {
        return Long.highestOneBit(size - 1);
    }

    /** Whether the path leads from the leaf to the root (section 2.1.3.2). */
    public static boolean includes(byte[] leafHash, long index, long size, List<byte[]> path, byte[] root) {
        if (index < 0 || index >= size) {
            return false;
        }
        long node = index;
        long last = size - 1;
        byte[] hash = leafHash;
        for (byte[] beside : path) {
            if (last == 0) {
                return false;
            }
            if ((node & 1) == 1 || node == last) {
                hash = MerkleTree.nodeHash(beside, hash);
                while ((node & 1) == 0 && node != 0) {
                    node >>= 1;
                    last >>= 1;
                }
            } else {
                hash = MerkleTree.nodeHash(hash, beside);
            }
            node >>= 1;
            last >>= 1;
        }
        return last == 0 && Arrays.equals(hash, root);
    }

    /** Whether the one tree is the beginning of the other (section 2.1.4.2). */
    public static boolean isConsistent(long first, byte[] firstRoot, long second, byte[] secondRoot,
            List<byte[]> path) {
        if (first < 1 || first > second) {
            return false;
        }
        if (first == second) {
            return path.isEmpty() && Arrays.equals(firstRoot, secondRoot);
        }
        List<byte[]> whole = new ArrayList<>();
        if (Long.bitCount(first) == 1) {
            whole.add(firstRoot);
        }
        whole.addAll(path);
        return !whole.isEmpty() && leadsToBoth(first, firstRoot, second, secondRoot, whole.iterator());
    }

    private static boolean leadsToBoth(long first, byte[] firstRoot, long second, byte[] secondRoot,
            Iterator<byte[]> path) {
        long node = first - 1;
        long last = second - 1;
        while ((node & 1) == 1) {
            node >>= 1;
            last >>= 1;
        }
        byte[] one = path.next();
        byte[] two = one;
        while (path.hasNext()) {
            byte[] beside = path.next();
            if (last == 0) {
                return false;
            }
            if ((node & 1) == 1 || node == last) {
                one = MerkleTree.nodeHash(beside, one);
                two = MerkleTree.nodeHash(beside, two);
                while ((node & 1) == 0 && node != 0) {
                    node >>= 1;
                    last >>= 1;
                }
            } else {
                two = MerkleTree.nodeHash(two, beside);
            }
            node >>= 1;
            last >>= 1;
        }
        return last == 0 && Arrays.equals(one, firstRoot) && Arrays.equals(two, secondRoot);
    }
}

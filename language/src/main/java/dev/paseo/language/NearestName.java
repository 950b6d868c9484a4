package dev.paseo.language;

import java.util.Collection;
import java.util.Comparator;
import java.util.Locale;
import java.util.Optional;

/** Finds the right name nearest to a wrong one, by edit distance with transpositions. */
public final class NearestName {

    private NearestName() {}

    /** What is longer is no name, and is compared with none. */
    private static final int LONGEST = 200;

    /** The nearest of the names, if it is near enough to have been meant. */
    public static Optional<String> of(String wrong, Collection<String> names) {
        if (wrong.length() > LONGEST) {
            return Optional.empty();
        }
        int limit = Math.max(1, wrong.length() / 3);
        return names.stream().filter(name -> name.length() <= LONGEST)
                .filter(name -> distance(wrong.toLowerCase(Locale.ROOT), name.toLowerCase(Locale.ROOT)) <= limit)
                .min(Comparator.comparingInt(
                        (String name) -> distance(wrong.toLowerCase(Locale.ROOT), name.toLowerCase(Locale.ROOT)))
                        .thenComparing(Comparator.naturalOrder()));
    }

    /** {@code ; did you mean X?}, or what is allowed where nothing is near. */
    public static String hint(String wrong, Collection<String> names) {
        return of(wrong, names).map(name -> "; did you mean " + name + "?")
                .orElseGet(() -> names.isEmpty() ? ""
                        : "; known: " + String.join(", ", names.stream().limit(20).toList()));
    }

    private static int distance(String left, String right) {
        int[][] cost = new int[left.length() + 1][right.length() + 1];
        for (int i = 0; i <= left.length(); i++) {
            for (int j = 0; j <= right.length(); j++) {
                cost[i][j] = i == 0 ? j : j == 0 ? i : step(cost, left, right, i, j);
            }
        }
        return cost[left.length()][right.length()];
    }

    private static int step(int[][] cost, String left, String right, int i, int j) {
        int change = left.charAt(i - 1) == right.charAt(j - 1) ? 0 : 1;
        int least = Math.min(Math.min(cost[i - 1][j] + 1, cost[i][j - 1] + 1), cost[i - 1][j - 1] + change);
        boolean swapped = i > 1 && j > 1 && left.charAt(i - 1) == right.charAt(j - 2)
                && left.charAt(i - 2) == right.charAt(j - 1);
        return swapped ? Math.min(least, cost[i - 2][j - 2] + 1) : least;
    }
}

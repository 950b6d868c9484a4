package dev.paseo.e2e;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** The rows of a benchmark's table. */
final class Figures {

    private final List<String> rows = new ArrayList<>();

    void row(String what, String measured, String budget, String against) {
        rows.add("| " + what + " | " + measured + " | " + budget + " | " + against + " |");
        System.out.println(rows.getLast());
    }

    /**
     * A row that is held against a limit, and says by how much it misses, and why.
     *
     * @param least whether the limit is the least that is wanted; else it is the most
     */
    record Limit(double value, double limit, boolean least, String why) {
        private String words() {
            boolean missed = least ? value < limit : value > limit;
            double off = 100 * Math.abs(value - limit) / limit;
            return missed ? number("; **misses by %.0f %%**: ", off) + why : "; met";
        }
    }

    void row(String what, String measured, String budget, Limit limit, String against) {
        row(what, measured + limit.words(), budget, against);
    }

    String table() {
        return String.join("\n", rows);
    }

    static String number(String format, double... values) {
        return String.format(Locale.ROOT, format, Arrays.stream(values).boxed().toArray());
    }

    /** By nearest rank: the smallest value that at least this share is not above. */
    static double percentile(List<Double> values, double share) {
        List<Double> sorted = values.stream().sorted().toList();
        return sorted.get(Math.max(0, (int) Math.ceil(share * sorted.size()) - 1));
    }
}

package dev.paseo.core.pace;

import java.util.Arrays;
import java.util.Collection;
import java.util.EnumMap;
import java.util.Map;
import java.util.OptionalLong;

/**
 * What many lead times come to. Times are in seconds.
 *
 * @param live     how many went live
 * @param median   of the time from the beginning to going live; none: nothing went live
 * @param ninety   as long as at most 90 % of them took
 * @param parts    where all of the time went: what all spent in each part
 * @param medians  of each part by itself
 * @param wentBack how many were gone back from
 * @param mended   the median of how long those were live that were gone back from
 */
public record Summary(int live, OptionalLong median, OptionalLong ninety, Map<TimePart, Long> parts,
        Map<TimePart, Long> medians, int wentBack, OptionalLong mended) {

    /**
     * One lead time, in seconds.
     *
     * @param parts in the order of {@link TimePart}
     * @param badFor how long it was live until it was gone back from; negative: it was not
     */
    public record Sample(long[] parts, long badFor) {
        long total() {
            long total = 0;
            for (long part : parts) {
                total += part;
            }
            return total;
        }
    }

    /** Of these; the order does not matter. */
    public static Summary of(Collection<Sample> samples) {
        long[][] columns = columns(samples);
        long[] bad = samples.stream().mapToLong(Sample::badFor).filter(seconds -> seconds >= 0).sorted().toArray();
        long[] totals = totals(samples);
        Map<TimePart, Long> sums = new EnumMap<>(TimePart.class);
        Map<TimePart, Long> medians = new EnumMap<>(TimePart.class);
        for (TimePart part : TimePart.values()) {
            long[] each = columns[part.ordinal()];
            Arrays.sort(each);
            sums.put(part, Arrays.stream(each).sum());
            percentile(each, 50).ifPresent(median -> medians.put(part, median));
        }
        return new Summary(totals.length, percentile(totals, 50), percentile(totals, 90), sums, medians, bad.length,
                percentile(bad, 50));
    }

    /** By part; each sample is looked at once, as of a year there are very many. */
    private static long[][] columns(Collection<Sample> samples) {
        long[][] columns = new long[TimePart.values().length][samples.size()];
        int at = 0;
        for (Sample sample : samples) {
            for (int part = 0; part < columns.length; part++) {
                columns[part][at] = sample.parts()[part];
            }
            at++;
        }
        return columns;
    }

    private static long[] totals(Collection<Sample> samples) {
        long[] totals = new long[samples.size()];
        int at = 0;
        for (Sample sample : samples) {
            totals[at++] = sample.total();
        }
        Arrays.sort(totals);
        return totals;
    }

    /**
     * Of a shorter time, where the parts are too few to say much.
     *
     * @param live     how many went live
     * @param median   of the time from the beginning to going live; none: nothing went live
     * @param wentBack how many were gone back from
     */
    public record Brief(int live, OptionalLong median, int wentBack) {

        /** Of these; the order does not matter. */
        public static Brief of(Collection<Sample> samples) {
            return new Brief(samples.size(), percentile(totals(samples), 50),
                    (int) samples.stream().filter(sample -> sample.badFor() >= 0).count());
        }
    }

    /** By nearest rank: the smallest value that at least so many percent are not above. */
    static OptionalLong percentile(long[] sorted, int percent) {
        return sorted.length == 0 ? OptionalLong.empty()
                : OptionalLong.of(sorted[(int) Math.ceil(sorted.length * (percent / 100.0)) - 1]);
    }
}

package dev.paseo.core.pace;

import dev.paseo.core.pace.Shift.Difference;
import dev.paseo.core.pace.Shift.Kind;
import dev.paseo.core.pace.Shift.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.IntStream;

/**
 * Finds where a series moved: by binary segmentation, which splits where the parts fit best, as long as the two sides
 * differ by more than chance. Times are held against each other by the rank-sum test of Mann and Whitney and by their
 * medians, failures by the likelihood ratio. Of a hundred series that only vary, two or three are said to have moved.
 */
public final class Shifts {

    /** Fewer on a side are no shift yet. */
    public static final int FEWEST = 4;
    /** How much of a fact's values has to be elsewhere for it to be a difference. */
    private static final double ELSEWHERE = 0.7;
    private static final int VALUES = 3;

    private Shifts() {}

    /**
     * One of a series, in order of time.
     *
     * @param millis how long it took; counts only where it did not fail
     * @param facts  what it was done with, by name
     */
    public record Point(long millis, boolean failed, Map<String, String> facts) {}

    /** What is looked at of a part of a series; the part is told by positions. */
    private interface Figure {

        /** How badly one value stands for all of a part. */
        double cost(int[] part);

        boolean differs(int[] before, int[] after);

        long value(int[] part);

        Kind kind(boolean more);
    }

    /** All shifts of a series, the newest first. */
    public static List<Shift> of(List<Point> points) {
        int[] all = IntStream.range(0, points.size()).toArray();
        int[] good = Arrays.stream(all).filter(at -> !points.get(at).failed()).toArray();
        List<Shift> shifts = new ArrayList<>(shifts(points, good, new Times(points)));
        shifts.addAll(shifts(points, all, new Failures(points)));
        shifts.sort(Comparator.comparing(Shift::at).reversed().thenComparing(Shift::kind));
        return List.copyOf(shifts);
    }

    private static List<Shift> shifts(List<Point> points, int[] series, Figure figure) {
        List<int[]> parts = new ArrayList<>();
        split(series, figure, parts);
        List<Shift> shifts = new ArrayList<>();
        for (int i = 1; i < parts.size(); i++) {
            int[] before = parts.get(i - 1);
            int[] after = parts.get(i);
            long was = figure.value(before);
            long is = figure.value(after);
            shifts.add(new Shift(figure.kind(is > was), after[0], was, is, differences(points, before, after)));
        }
        return shifts;
    }

    /** Adds the parts, in their order, that differ from each other. */
    private static void split(int[] part, Figure figure, List<int[]> parts) {
        int best = 0;
        double least = Double.MAX_VALUE;
        for (int at = FEWEST; at <= part.length - FEWEST; at++) {
            double cost = figure.cost(Arrays.copyOf(part, at))
                    + figure.cost(Arrays.copyOfRange(part, at, part.length));
            if (cost < least) {
                least = cost;
                best = at;
            }
        }
        int[] before = Arrays.copyOf(part, best);
        int[] after = Arrays.copyOfRange(part, best, part.length);
        if (best > 0 && figure.differs(before, after)) {
            split(before, figure, parts);
            split(after, figure, parts);
        } else {
            parts.add(part);
        }
    }

    /** How long each took. */
    private record Times(List<Point> points) implements Figure {

        /** A median has to move by so much, as a factor. */
        private static final double FACTOR = 1.25;
        /** And by so much, in milliseconds: for less nobody waits. */
        private static final long LEAST = 1000;
        /** So many deviations from what chance would give. */
        private static final double DEVIATIONS = 3.1;

        private long[] sorted(int[] part) {
            return Arrays.stream(part).mapToLong(at -> points.get(at).millis()).sorted().toArray();
        }

        @Override
        public double cost(int[] part) {
            long[] values = sorted(part);
            double median = Math.log1p(values[values.length / 2]);
            return Arrays.stream(values).mapToDouble(value -> Math.abs(Math.log1p(value) - median)).sum();
        }

        @Override
        public boolean differs(int[] before, int[] after) {
            long was = value(before);
            long is = value(after);
            return Math.abs(is - was) >= LEAST && Math.max(is, was) >= FACTOR * Math.min(is, was)
                    && Math.abs(deviations(sorted(before), sorted(after))) >= DEVIATIONS;
        }

        /** The rank sum of the second ones, as deviations from what it is by chance. */
        private static double deviations(long[] before, long[] after) {
            double above = 0;
            for (long late : after) {
                for (long early : before) {
                    above += late > early ? 1 : late == early ? 0.5 : 0;
                }
            }
            double pairs = (double) before.length * after.length;
            return (above - pairs / 2) / Math.sqrt(pairs * (before.length + after.length + 1) / 12);
        }

        @Override
        public long value(int[] part) {
            return Summary.percentile(sorted(part), 50).orElse(0);
        }

        @Override
        public Kind kind(boolean more) {
            return more ? Kind.SLOWER : Kind.FASTER;
        }
    }

    /** Whether each failed. */
    private record Failures(List<Point> points) implements Figure {

        /** A share of failures has to move by so much. */
        private static final double SHARE = 0.3;
        /** The likelihood ratio that chance exceeds in less than 1 of 1,000. */
        private static final double LIKELIHOOD = 12;

        private double share(int[] part) {
            return (double) Arrays.stream(part).filter(at -> points.get(at).failed()).count() / part.length;
        }

        @Override
        public double cost(int[] part) {
            double share = share(part);
            return -part.length * (entropy(share) + entropy(1 - share));
        }

        private static double entropy(double share) {
            return share == 0 ? 0 : share * Math.log(share);
        }

        @Override
        public boolean differs(int[] before, int[] after) {
            int[] both = IntStream.concat(Arrays.stream(before), Arrays.stream(after)).toArray();
            return Math.abs(share(after) - share(before)) >= SHARE
                    && 2 * (cost(both) - cost(before) - cost(after)) >= LIKELIHOOD;
        }

        @Override
        public long value(int[] part) {
            return Math.round(100 * share(part));
        }

        @Override
        public Kind kind(boolean more) {
            return more ? Kind.FAILS_MORE : Kind.FAILS_LESS;
        }
    }

    /**
     * The facts whose values are elsewhere after, of those that have a usual value there: what is another each time
     * explains nothing.
     */
    private static List<Difference> differences(List<Point> points, int[] before, int[] after) {
        TreeSet<String> facts = new TreeSet<>();
        Arrays.stream(after).forEach(at -> facts.addAll(points.get(at).facts().keySet()));
        Map<Double, List<Difference>> found = new TreeMap<>(Comparator.reverseOrder());
        for (String fact : facts) {
            List<Value> was = values(points, before, fact);
            List<Value> is = values(points, after, fact);
            double elsewhere = elsewhere(was, is);
            if (elsewhere >= ELSEWHERE && 2 * is.getFirst().count() >= is.getFirst().of()) {
                found.computeIfAbsent(elsewhere, any -> new ArrayList<>())
                        .add(new Difference(fact, first(was), first(is)));
            }
        }
        return found.values().stream().flatMap(List::stream).toList();
    }

    private static List<Value> first(List<Value> values) {
        return values.stream().limit(VALUES).toList();
    }

    /** The values of a fact, the most frequent first. */
    private static List<Value> values(List<Point> points, int[] part, String fact) {
        Map<String, Integer> counts = new TreeMap<>();
        Arrays.stream(part).mapToObj(at -> points.get(at).facts().get(fact)).filter(value -> value != null)
                .forEach(value -> counts.merge(value, 1, Integer::sum));
        int all = counts.values().stream().mapToInt(Integer::intValue).sum();
        return counts.entrySet().stream().map(each -> new Value(each.getKey(), each.getValue(), all))
                .sorted(Comparator.comparing(Value::count).reversed().thenComparing(Value::value)).toList();
    }

    /** How much of the values is not where it was, from 0 to 1: half of what the shares differ by. */
    private static double elsewhere(List<Value> before, List<Value> after) {
        TreeMap<String, Double> shares = new TreeMap<>();
        before.forEach(each -> shares.merge(each.value(), -(double) each.count() / each.of(), Double::sum));
        after.forEach(each -> shares.merge(each.value(), (double) each.count() / each.of(), Double::sum));
        return before.isEmpty() ? 0 : shares.values().stream().mapToDouble(Math::abs).sum() / 2;
    }
}

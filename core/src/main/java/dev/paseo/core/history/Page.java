package dev.paseo.core.history;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * So much of what happened, the newest first.
 *
 * @param next the mark of the last one here, where there may be more behind it
 */
public record Page(List<Happening> happenings, Optional<Mark> next) {

    /**
     * The first ones of several sources.
     *
     * @param sources each the newest first, and each either complete or with at least {@code limit}
     * @param after   only what stands behind this
     */
    public static Page of(List<List<Happening>> sources, Optional<Mark> after, int limit) {
        List<Happening> all = sources.stream().flatMap(List::stream).sorted(Comparator.comparing(Happening::mark))
                .filter(each -> after.isEmpty() || each.mark().compareTo(after.get()) > 0).toList();
        List<Happening> first = all.stream().limit(limit).toList();
        return new Page(first, Stream.of(all).filter(more -> more.size() > limit)
                .map(more -> first.getLast().mark()).findFirst());
    }
}

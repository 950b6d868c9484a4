package dev.paseo.core.gate;

import dev.paseo.core.text.Length;
import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/** Criteria as people say them. */
public final class InWords {

    private InWords() {}

    public static String of(Criterion criterion) {
        return switch (criterion) {
            case Criterion.Approvals rule -> (rule.count() == 1 ? "One of " : rule.count() + " of ")
                    + String.join(" or ", rule.from()) + (rule.count() == 1 ? " approves" : " approve")
                    + (rule.notBy().isEmpty() ? ""
                            : ", not " + rule.notBy().stream()
                                    .map(who -> who == Criterion.Exclusion.AUTHORS ? "an author" : "the requester")
                                    .collect(Collectors.joining(" or ")))
                    + (rule.commentRequired() ? ", with a comment" : "")
                    + rule.within().map(length -> ", within " + Length.of(length) + " of the request").orElse("")
                    + rule.escalation()
                            .map(more -> "; after " + Length.of(more.after()) + " " + more.to() + " are asked too")
                            .orElse("")
                    + ".";
            case Criterion.Checklist list -> String.join(" or ", list.from()) + " tick: "
                    + String.join("; ", list.items()) + ".";
            case Criterion.LiveFor(var length) -> "It has been live and healthy for " + Length.of(length)
                    + " in one stretch.";
            case Criterion.Open(Hours hours) -> "It begins " + hours(hours) + " (" + hours.zone() + ").";
            case Criterion.Fact fact -> fact.name().isEmpty() ? "This holds: " + fact.condition()
                    : fact.name() + " (" + fact.condition() + ")";
            case Criterion.Outside outside -> outside.name() + " says yes"
                    + outside.within().map(length -> " within " + Length.of(length)).orElse("") + ".";
            case Criterion.Follows follows -> "It has passed "
                    + String.join(follows.any() ? " or " : " and ", follows.environments()) + ".";
            case Criterion.Origin origin -> origin(origin);
            case Criterion.NotHeld() -> "The place is not held.";
            case Criterion.NotClosed() -> "The environment is not closed.";
            case Criterion.PreviousPassed() -> "Nothing is being tested there.";
            case Criterion.Requires() -> "What it requires is live there.";
        };
    }

    private static String origin(Criterion.Origin origin) {
        List<String> from = new ArrayList<>();
        if (origin.branches().isEmpty() && origin.tags().isEmpty()) {
            from.add("was built from a trusted branch");
        }
        if (!origin.branches().isEmpty()) {
            from.add("was built from " + String.join(" or ", origin.branches()));
        }
        if (!origin.tags().isEmpty()) {
            from.add("is tagged " + String.join(" or ", origin.tags()));
        }
        if (origin.uploads()) {
            from.add("was uploaded");
        }
        return "It " + String.join(", or ", from) + ".";
    }

    private static String hours(Hours hours) {
        String windows = hours.windows().stream()
                .map(window -> days(window.days()) + " from " + window.span().from() + " to " + window.span().end())
                .collect(Collectors.joining(", "));
        String exceptions = hours.exceptions().entrySet().stream()
                .map(day -> day.getKey() + (day.getValue().isEmpty() ? " not at all"
                        : " from " + day.getValue().stream().map(span -> span.from() + " to " + span.end())
                                .collect(Collectors.joining(" and "))))
                .collect(Collectors.joining(", "));
        return windows + (exceptions.isEmpty() ? "" : "; " + exceptions);
    }

    /** Neighbouring days as a range. */
    private static String days(Set<DayOfWeek> days) {
        if (days.size() == 7) {
            return "every day";
        }
        List<String> parts = new ArrayList<>();
        for (int at = 1; at <= 7; at++) {
            int end = at;
            while (end < 7 && days.contains(DayOfWeek.of(at)) && days.contains(DayOfWeek.of(end + 1))) {
                end++;
            }
            if (days.contains(DayOfWeek.of(at))) {
                parts.add(name(at) + (end > at ? " to " + name(end) : ""));
                at = end;
            }
        }
        return String.join(", ", parts);
    }

    private static String name(int day) {
        return DayOfWeek.of(day).getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    }
}

package dev.paseo.language.environment;

import dev.paseo.core.text.Length;
import static dev.paseo.language.environment.EnvironmentsFileReader.optional;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.Hours;
import dev.paseo.language.FormerWords;
import dev.paseo.language.Value;
import dev.paseo.language.condition.Condition;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Reads the criteria of a gate. */
final class GateReader {

    private static final int MOST_ITEMS = 200;
    private static final int LONGEST_NAME = 120;
    private static final Duration LONGEST = Duration.ofDays(365);
    static final List<String> DAYS = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");
    private static final Pattern WINDOW = Pattern
            .compile("(daily|[a-z]{3}(?:-[a-z]{3})?(?:,[a-z]{3}(?:-[a-z]{3})?)*) (\\d\\d:\\d\\d)-(\\d\\d:\\d\\d)");
    private static final Pattern EXCEPTION = Pattern
            .compile("(\\d{4}-\\d\\d-\\d\\d)(?: (\\d\\d:\\d\\d)-(\\d\\d:\\d\\d))?");

    private final ZoneId zone;
    private final Condition conditions;

    GateReader(ZoneId zone, Condition conditions) {
        this.zone = zone;
        this.conditions = conditions;
    }

    GateRules read(Value value) {
        Map<String, Value> entries = value.entries(
                List.of("approvals", "checklist", "live-for", "open", "facts", "outside"), FormerWords.CRITERIA);
        Map<String, String> names = new LinkedHashMap<>();
        List<String> facts = several(optional(entries, "facts")).stream().flatMap(each -> facts(each, names))
                .distinct().toList();
        return new GateRules(
                several(optional(entries, "approvals")).stream().flatMap(each -> approvals(each).stream()).toList(),
                several(optional(entries, "checklist")).stream().flatMap(each -> checklist(each).stream()).toList(),
                optional(entries, "live-for").flatMap(each -> each.duration(LONGEST)),
                optional(entries, "open").flatMap(this::hours),
                facts, optional(entries, "outside").map(Value::entries).orElse(Map.of()).entrySet().stream()
                        .flatMap(each -> outside(each.getKey(), each.getValue()).stream()).toList(),
                Optional.of(names));
    }

    private static List<Value> several(Optional<Value> value) {
        return value.map(each -> each.isList() ? each.items() : List.of(each)).orElse(List.of());
    }

    private static List<String> names(Value value, Map<String, Value> entries, String key, String words) {
        return EnvironmentsFileReader.require(value, entries, key, words)
                .map(each -> several(Optional.of(each)).stream().flatMap(name -> name.text().stream()).toList())
                .orElse(List.of());
    }

    private Optional<Criterion.Approvals> approvals(Value value) {
        Map<String, Value> entries = value
                .entries(List.of("from", "count", "not-by", "comment", "within", "escalate", "unknown-authors"));
        List<String> from = names(value, entries, "from", "from: the groups or persons who decide");
        List<Criterion.Exclusion> notBy = optional(entries, "not-by").map(Value::items).orElse(List.of()).stream()
                .flatMap(item -> item.choice(
                        Map.of("authors", Criterion.Exclusion.AUTHORS, "requester", Criterion.Exclusion.REQUESTER))
                        .stream())
                .toList();
        boolean comment = optional(entries, "comment")
                .flatMap(item -> item.choice(Map.of("required", true, "optional", false))).orElse(false);
        int count = optional(entries, "count").flatMap(item -> item.number(1, 50)).orElse(1);
        Optional<Duration> within = optional(entries, "within").flatMap(item -> item.duration(LONGEST));
        Optional<Criterion.Escalation> escalation = optional(entries, "escalate").flatMap(this::escalation);
        escalation.filter(each -> within.isPresent() && each.after().compareTo(within.get()) >= 0)
                .ifPresent(late -> entries.get("escalate").problem(
                        "should ask others before it expires, which is within " + Length.written(within.get())));
        Optional<Criterion.UnknownAuthors> unknown = optional(entries, "unknown-authors")
                .flatMap(item -> item.choice(
                        Map.of("one-more", Criterion.UnknownAuthors.ONE_MORE, "ask", Criterion.UnknownAuthors.ASK)));
        return from.isEmpty() ? Optional.empty()
                : Optional.of(new Criterion.Approvals(from, count, notBy, comment, within, escalation, unknown));
    }

    private Optional<Criterion.Escalation> escalation(Value value) {
        Map<String, Value> entries = value.entries(List.of("after", "to"));
        Optional<Duration> after = EnvironmentsFileReader
                .require(value, entries, "after", "after: how long nobody has decided")
                .flatMap(each -> each.duration(LONGEST));
        Optional<String> to = EnvironmentsFileReader.require(value, entries, "to", "to: the group that is asked then")
                .flatMap(Value::text);
        return after.flatMap(length -> to.map(group -> new Criterion.Escalation(length, group)));
    }

    private Optional<Criterion.Checklist> checklist(Value value) {
        Map<String, Value> entries = value.entries(List.of("for", "items"));
        List<String> from = names(value, entries, "for", "for: the groups or persons who tick");
        List<String> items = EnvironmentsFileReader.require(value, entries, "items", "items: what is ticked")
                .map(Value::texts).orElse(List.of());
        if (items.size() > MOST_ITEMS || items.stream().distinct().count() != items.size()
                || items.stream().anyMatch(item -> item.length() > 300)) {
            value.problem("should have at most " + MOST_ITEMS + " items, each once and of at most 300 characters");
        }
        return from.isEmpty() || items.isEmpty() ? Optional.empty() : Optional.of(new Criterion.Checklist(from, items));
    }

    /** A condition, or several by what people are shown instead of each. */
    private Stream<String> facts(Value value, Map<String, String> names) {
        if (!value.isMap()) {
            return fact(value).stream();
        }
        return value.entries().entrySet().stream().flatMap(each -> {
            if (each.getKey().length() > LONGEST_NAME) {
                each.getValue().problemWithName("should have at most " + LONGEST_NAME + " characters");
            }
            Optional<String> condition = fact(each.getValue());
            condition.ifPresent(text -> names.put(text, each.getKey()));
            return condition.stream();
        });
    }

    private Optional<String> fact(Value value) {
        Optional<String> text = value.text();
        text.flatMap(conditions::reasonAgainst).ifPresent(value::problem);
        return text;
    }

    private Optional<Criterion.Outside> outside(String name, Value value) {
        Map<String, Value> entries = value.entries(List.of("url", "within"));
        Optional<String> url = EnvironmentsFileReader.require(value, entries, "url", "url: where the question is sent")
                .flatMap(EnvironmentsFileReader::address);
        return url.map(address -> new Criterion.Outside(name, address,
                optional(entries, "within").flatMap(each -> each.duration(LONGEST))));
    }

    private Optional<Hours> hours(Value value) {
        Map<String, Value> entries = value.isMap() ? value.entries(List.of("hours", "except")) : Map.of("hours", value);
        List<Hours.Window> windows = new ArrayList<>();
        EnvironmentsFileReader.require(value, entries, "hours", "hours: when it is open").map(Value::items)
                .orElse(List.of()).forEach(each -> window(each).ifPresent(windows::add));
        Map<LocalDate, List<Hours.Span>> exceptions = new LinkedHashMap<>();
        optional(entries, "except").map(Value::items).orElse(List.of()).forEach(each -> exception(each, exceptions));
        return Optional.of(new Hours(zone, windows, exceptions));
    }

    private static Optional<Hours.Window> window(Value value) {
        Matcher matcher = WINDOW.matcher(value.plain());
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        if (matcher.matches()) {
            List.of(matcher.group(1).split(",")).forEach(part -> days.addAll(days(part)));
        }
        Optional<Hours.Span> span = days.isEmpty() ? Optional.empty() : span(matcher.group(2), matcher.group(3));
        if (span.isEmpty()) {
            value.problem(
                    "should be days and times such as \"mon-thu 09:00-16:00\", \"sat,sun 10:00-12:00\" or \"daily "
                            + "22:00-02:00\"");
        }
        return span.map(each -> new Hours.Window(days, each));
    }

    private static Set<DayOfWeek> days(String part) {
        if (part.equals("daily")) {
            return EnumSet.allOf(DayOfWeek.class);
        }
        int first = DAYS.indexOf(part.substring(0, 3));
        int last = part.length() > 3 ? DAYS.indexOf(part.substring(4)) : first;
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        if (first >= 0 && last >= 0) {
            for (int day = first;; day = (day + 1) % 7) {
                days.add(DayOfWeek.of(day + 1));
                if (day == last) {
                    break;
                }
            }
        }
        return days;
    }

    private static Optional<Hours.Span> span(String from, String to) {
        try {
            return Optional.of(new Hours.Span(LocalTime.parse(from),
                    to.equals("24:00") ? LocalTime.MIDNIGHT : LocalTime.parse(to)));
        } catch (DateTimeException wrong) {
            return Optional.empty();
        }
    }

    private static void exception(Value value, Map<LocalDate, List<Hours.Span>> exceptions) {
        Matcher matcher = EXCEPTION.matcher(value.plain());
        try {
            if (matcher.matches()) {
                LocalDate day = LocalDate.parse(matcher.group(1));
                List<Hours.Span> spans = new ArrayList<>(exceptions.getOrDefault(day, List.of()));
                if (matcher.group(2) != null) {
                    spans.add(span(matcher.group(2), matcher.group(3))
                            .orElseThrow(() -> new DateTimeException("no time")));
                }
                exceptions.put(day, spans);
                return;
            }
        } catch (DateTimeException wrong) {
            // Told below.
        }
        value.problem(
                "should be a day that is closed, such as \"2026-12-24\", or its hours, such as \"2026-12-31 "
                        + "09:00-12:00\"");
    }
}

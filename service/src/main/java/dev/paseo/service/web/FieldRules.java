package dev.paseo.service.web;

import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.lang.reflect.RecordComponent;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What holds for every field of every body that comes in: one that is not optional is given, text is no longer than is
 * kept and can be kept, lists are no longer than anybody needs, times lie within what calendars have. A field that may
 * be longer says so with {@link Size}, which the API's description shows too.
 */
final class FieldRules {

    /** The most characters of a text that says nothing else. */
    static final int LONGEST_TEXT = 4_000;
    /** The most entries of a list or a map. */
    static final int MOST_ENTRIES = 1_000;
    static final Instant EARLIEST = Instant.EPOCH;
    static final Instant LATEST = Instant.parse("9999-12-31T23:59:59Z");
    static final Duration LONGEST = Duration.ofDays(3_660);
    private static final int MOST_TOLD = 20;

    private final List<Refusal.Field> wrong = new ArrayList<>();

    private FieldRules() {}

    /** What is wrong with a body, each field by its JSON pointer; at most twenty are told. */
    static List<Refusal.Field> of(Object body) {
        FieldRules rules = new FieldRules();
        rules.value("", body, LONGEST_TEXT, false);
        return rules.wrong.stream().limit(MOST_TOLD).toList();
    }

    private void wrong(String pointer, String message) {
        if (wrong.size() < MOST_TOLD) {
            wrong.add(new Refusal.Field(pointer,
                    (pointer.isEmpty() ? "The body" : pointer.substring(1).replace('/', '.')) + " " + message));
        }
    }

    private void value(String pointer, @Nullable Object value, int longest, boolean optional) {
        switch (value) {
            case null -> {
                if (!optional) {
                    wrong(pointer, "should be given");
                }
            }
            case Optional<?> some -> value(pointer, some.orElse(null), longest, true);
            case String text -> text(pointer, text, longest);
            case Instant moment when moment.isBefore(EARLIEST) || moment.isAfter(LATEST) -> wrong(pointer,
                    "should be a moment from 1970 to 9999");
            case Duration length when length.abs().compareTo(LONGEST) > 0 -> wrong(pointer,
                    "should be at most " + LONGEST.toDays() + " days long");
            case Collection<?> all -> entries(pointer, all, longest);
            case Map<?, ?> all -> map(pointer, all, longest);
            case Record record -> record(pointer, record);
            default -> {}
        }
    }

    private void text(String pointer, String text, int longest) {
        int length = text.codePointCount(0, text.length());
        if (length > longest) {
            wrong(pointer, "should have at most " + longest + " characters; it has " + length);
        }
        if (text.codePoints()
                .anyMatch(each -> Character.isISOControl(each) && each != '\n' && each != '\r' && each != '\t'
                        || Character.getType(each) == Character.SURROGATE)) {
            wrong(pointer, "should be text without control characters");
        }
    }

    private void entries(String pointer, Collection<?> all, int longest) {
        if (all.size() > MOST_ENTRIES) {
            wrong(pointer, "should have at most " + MOST_ENTRIES + " entries; it has " + all.size());
            return;
        }
        int at = 0;
        for (Object each : all) {
            value(pointer + "/" + at++, each, longest, false);
        }
    }

    private void map(String pointer, Map<?, ?> all, int longest) {
        if (all.size() > MOST_ENTRIES) {
            wrong(pointer, "should have at most " + MOST_ENTRIES + " entries; it has " + all.size());
            return;
        }
        all.forEach((key, each) -> {
            text(pointer, String.valueOf(key), longest);
            value(pointer + "/" + key, each, longest, false);
        });
    }

    private void record(String pointer, Record record) {
        for (RecordComponent component : record.getClass().getRecordComponents()) {
            value(pointer + "/" + component.getName(), read(record, component), longest(component),
                    component.getType() == Optional.class);
        }
    }

    private static int longest(RecordComponent component) {
        return Optional.ofNullable(component.getAccessor().getAnnotation(Size.class)).map(Size::max)
                .orElse(LONGEST_TEXT);
    }

    private static @Nullable Object read(Record record, RecordComponent component) {
        try {
            component.getAccessor().setAccessible(true);
            return component.getAccessor().invoke(record);
        } catch (ReflectiveOperationException hidden) {
            throw new IllegalStateException(hidden);
        }
    }
}

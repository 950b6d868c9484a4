package dev.paseo.service.web;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class FieldRulesTest {

    record Inner(@Nullable String name) {}

    record Body(@Nullable String name, @Size(max = 10) Optional<String> note, @Nullable List<Inner> members,
            @Nullable Map<String, String> labels, @Nullable Instant at, @Nullable Duration length, boolean yes) {}

    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");

    private static Body body(@Nullable String name, @Nullable String note) {
        return new Body(name, Optional.ofNullable(note), List.of(), Map.of(), NOW, Duration.ZERO, true);
    }

    private static List<String> said(Body body) {
        return FieldRules.of(body).stream().map(Refusal.Field::detail).toList();
    }

    static Stream<Arguments> bodies() {
        return Stream.of(
                Arguments.of(body("lamp", null), List.of()),
                Arguments.of(body("é".repeat(FieldRules.LONGEST_TEXT), "\uD83C\uDFD4".repeat(10)), List.of()),
                Arguments.of(body("x".repeat(4_001), "x".repeat(11)),
                        List.of("name should have at most 4000 characters; it has 4001",
                                "note should have at most 10 characters; it has 11")),
                Arguments.of(body("two\nlines\tof it\r", null), List.of()),
                Arguments.of(body("a\u0000b", "\u001b[2J"),
                        List.of("name should be text without control characters",
                                "note should be text without control characters")),
                Arguments.of(body("half \uD83C", null),
                        List.of("name should be text without control characters")),
                Arguments.of(new Body(null, Optional.empty(), null, null, null, null, false),
                        List.of("name should be given", "members should be given", "labels should be given",
                                "at should be given", "length should be given")),
                Arguments.of(
                        new Body("a", Optional.empty(), Arrays.asList(new Inner("b"), null, new Inner(null)), Map.of(),
                                NOW, Duration.ZERO, true),
                        List.of("members.1 should be given", "members.2.name should be given")),
                Arguments.of(
                        new Body("a", Optional.empty(), Collections.nCopies(1_001, new Inner("b")), Map.of(), NOW,
                                Duration.ZERO, true),
                        List.of("members should have at most 1000 entries; it has 1001")),
                Arguments.of(
                        new Body("a", Optional.empty(), List.of(), Map.of("x".repeat(4_001), "y"), Instant.MAX,
                                Duration.ofDays(-4_000), true),
                        List.of("labels should have at most 4000 characters; it has 4001",
                                "at should be a moment from 1970 to 9999", "length should be at most 3660 days long")));
    }

    @ParameterizedTest
    @MethodSource("bodies")
    void allThatIsWrongIsToldAtOnce(Body body, List<String> told) {
        assertEquals(told, said(body));
    }

    @Test
    void eachFieldIsNamedByItsPointerAndNoMoreThanTwentyAreTold() {
        List<Refusal.Field> wrong = FieldRules.of(new Body("a", Optional.empty(),
                Collections.nCopies(50, new Inner(null)), Map.of(), NOW, Duration.ZERO, true));
        assertEquals(20, wrong.size());
        assertEquals("/members/0/name", wrong.getFirst().pointer());
    }
}

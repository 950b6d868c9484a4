package dev.paseo.core.evidence;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.evidence.Parts.Change;
import dev.paseo.core.evidence.Parts.Part;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class PartsTest {

    private static Parts parts(String... exactly) {
        return new Parts(Arrays.stream(exactly).map(each -> each.split("@", 2))
                .map(each -> new Part(each[0], each.length > 1 ? each[1] : "", "MIT")).toList());
    }

    static Stream<Arguments> changes() {
        return Stream.of(Arguments.of(parts("a@1"), parts("a@1"), List.of()),
                Arguments.of(parts("a@1"), parts("a@2"), List.of(new Change("a", List.of("1"), List.of("2")))),
                Arguments.of(parts(), parts("a@1"), List.of(new Change("a", List.of(), List.of("1")))),
                Arguments.of(parts("a"), parts(), List.of(new Change("a", List.of(""), List.of()))),
                Arguments.of(parts("a@1", "a@2"), parts("a@2", "a@1"), List.of()),
                Arguments.of(parts("a@1", "a@2", "b@1"), parts("a@2", "c@1"),
                        List.of(new Change("a", List.of("1", "2"), List.of("2")),
                                new Change("b", List.of("1"), List.of()), new Change("c", List.of(), List.of("1")))));
    }

    @ParameterizedTest
    @MethodSource
    void changes(Parts before, Parts after, List<Change> changes) {
        assertEquals(changes, after.since(before));
    }

    @Test
    void eachPartCountsOnceAndWhatHasNoLicenceIsCounted() {
        Parts parts = parts("a@1").plus(parts("a@1")).plus(new Parts(List.of(new Part("b", "", ""))));
        assertEquals(new Parts.Summary(2, 1), parts.summary());
        assertEquals(List.of("a", "a@1", "b"), parts.packages());
    }
}

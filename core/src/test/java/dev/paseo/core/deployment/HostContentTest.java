package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class HostContentTest {

    private static final HostContent GIVEN = new HostContent("1.4.1", Map.of("LOG_LEVEL", "info", "url", "http://a"),
            Map.of("DATA_KEY", 7L));

    static Stream<Arguments> contents() {
        return Stream.of(
                Arguments.of("all of it is the same",
                        Optional.of(new HostContent("1.4.1", Map.of("url", "http://a", "LOG_LEVEL", "info"),
                                Map.of("DATA_KEY", 7L))),
                        true, List.of()),
                Arguments.of("another version",
                        Optional.of(new HostContent("1.4.2", GIVEN.variables(), GIVEN.secrets())), false, List.of()),
                Arguments.of("another value",
                        Optional.of(new HostContent("1.4.1", Map.of("LOG_LEVEL", "warn", "url", "http://a"),
                                GIVEN.secrets())),
                        false, List.of("LOG_LEVEL")),
                Arguments.of("a variable more",
                        Optional.of(new HostContent("1.4.1",
                                Map.of("LOG_LEVEL", "info", "RACK", "1", "url", "http://a"), GIVEN.secrets())),
                        false, List.of("RACK")),
                Arguments.of("a rotated secret",
                        Optional.of(new HostContent("1.4.1", GIVEN.variables(), Map.of("DATA_KEY", 8L))), false,
                        List.of("DATA_KEY")),
                Arguments.of("no secret yet, and no address",
                        Optional.of(new HostContent("1.4.1", Map.of("LOG_LEVEL", "info"), Map.of())), false,
                        List.of("DATA_KEY", "url")),
                Arguments.of("nothing, or nobody knows", Optional.empty(), false, List.of()));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("contents")
    void aHostHasItOnlyWhereAllOfItIsTheSame(String what, Optional<HostContent> has, boolean same,
            List<String> unlike) {
        assertEquals(same, Plan.Host.of("north-hut", Optional.empty(), has, GIVEN).has());
        assertEquals(unlike, has.map(GIVEN::settingsUnlike).orElse(List.of()));
    }

    @Test
    void ofRecordedRevisionsAHostsOwnBeatsThePlaces() {
        Map<String, Long> recorded = Map.of("DATA_KEY", 1L, "DATA_KEY@north-hut", 2L, "TOKEN", 3L, "TOKEN@ridge-hut",
                4L);
        assertEquals(Map.of("DATA_KEY", 2L, "TOKEN", 3L), HostContent.revisions(recorded, "north-hut"));
        assertEquals(Map.of("DATA_KEY", 1L, "TOKEN", 4L), HostContent.revisions(recorded, "ridge-hut"));
    }
}

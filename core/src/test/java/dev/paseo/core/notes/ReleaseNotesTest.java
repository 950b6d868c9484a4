package dev.paseo.core.notes;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.notes.ReleaseNotes.Commit;
import dev.paseo.core.notes.ReleaseNotes.News;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class ReleaseNotesTest {

    private static final Commit ROUND = new Commit("81fb208122b5", "Round times to turn back down");
    private static final Commit AGAIN = new Commit("56f10b21dcf1", "Round times to turn back down ");
    private static final Commit MERGE = new Commit("ebc89bc6aaf4", "Merge branch 'turning-times'");
    private static final Commit HOSTILE = new Commit("ab", "<img src=x> [a](b) *c*\n# d");

    private static News part(Optional<String> before, Optional<String> version, List<Commit> commits,
            List<Commit> lost, int more) {
        return new News("daylight-api", before, version, commits, lost, more);
    }

    static Stream<Arguments> parts() {
        Optional<String> old = Optional.of("1.4.1");
        Optional<String> now = Optional.of("1.4.6");
        return Stream.of(
                Arguments.of(part(old, now, List.of(ROUND, AGAIN, MERGE), List.of(), 0),
                        "daylight-api 1.4.6, after 1.4.1\n\n- Round times to turn back down (81fb208)\n"),
                Arguments.of(part(Optional.empty(), now, List.of(ROUND), List.of(), 3),
                        "daylight-api 1.4.6\n\n- Round times to turn back down (81fb208)\n- and 3 more\n"),
                Arguments.of(part(now, old, List.of(), List.of(ROUND), 0),
                        "daylight-api 1.4.1, after 1.4.6\n\nNo longer in it:\n\n- Round times to turn back down "
                                + "(81fb208)\n"),
                Arguments.of(part(old, Optional.empty(), List.of(), List.of(), 0),
                        "daylight-api is no longer there; it was 1.4.1\n\nNo commits of its own.\n"),
                Arguments.of(part(old, now, List.of(HOSTILE), List.of(), 0), "daylight-api 1.4.6, after 1.4.1\n\n"
                        + "- \\<img src=x\\> \\[a\\](b) \\*c\\* \\# d (ab)\n"));
    }

    @ParameterizedTest
    @MethodSource
    void parts(News part, String text) {
        assertEquals("# Week 48\n\n## " + text, ReleaseNotes.markdown("Week 48", List.of(part)));
    }

    @Test
    void whereNothingChangedItSaysSo() {
        assertEquals("# Week 48\n\nNothing has changed.\n", ReleaseNotes.markdown("Week 48", List.of()));
    }
}

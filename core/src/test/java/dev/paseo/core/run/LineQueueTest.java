package dev.paseo.core.run;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.run.LineQueue.Member;
import dev.paseo.core.run.LineQueue.NewerStart;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LineQueueTest {

    /** Members: number, a for active, p for prepared, n for not prepared. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "WAITS       | 1p       | Begin 1",
            "WAITS       | 1a 2p    | ''",
            "WAITS       | 1a 2p 3p | GiveWay 2 to 3",
            "WAITS       | 1a 2n 3p | GiveWay 2 to 3",
            "WAITS       | 1p 2n    | Begin 1",
            "WAITS       | 1p 2p    | GiveWay 1 to 2, Begin 2",
            "TAKES_OVER  | 1a 2p    | GiveWay 1 to 2",
            "TAKES_OVER  | 1a 2p 3p | GiveWay 2 to 3, GiveWay 1 to 3",
            "RUNS_BESIDE | 1a 2p 3p | Begin 2, Begin 3",
            "RUNS_BESIDE | 1a 2n    | ''"})
    void aNewerStart(NewerStart newer, String line, String expected) {
        List<Member> members = Arrays.stream(line.split(" ")).map(word -> {
            long number = Long.parseLong(word.substring(0, word.length() - 1));
            return new Member(number, number, word.endsWith("a"), !word.endsWith("n"), newer);
        }).toList();
        assertEquals(expected,
                String.join(", ", LineQueue.decide(members).stream().map(LineQueueTest::words).toList()));
    }

    private static String words(LineQueue.Move move) {
        return switch (move) {
            case LineQueue.Move.Begin(long run) -> "Begin " + run;
            case LineQueue.Move.GiveWay(long run, long to) -> "GiveWay " + run + " to " + to;
        };
    }
}

package dev.paseo.core.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Which run of a line may begin, and which gives way to a newer one. */
public final class LineQueue {

    private LineQueue() {}

    /** What a newer start does to the runs of its line that came before it. */
    public enum NewerStart {
        WAITS, TAKES_OVER, RUNS_BESIDE
    }

    /**
     * A run of the line that has not ended.
     *
     * @param active whether it has begun
     * @param newer  what it does to those before it
     */
    public record Member(long run, long number, boolean active, boolean prepared, NewerStart newer) {}

    /** What follows for one run. */
    public sealed interface Move {

        record Begin(long run) implements Move {}

        /** It gives way to a newer run, of this number. */
        record GiveWay(long run, long to) implements Move {}
    }

    /**
     * <ol>
     * <li>The newest run that is prepared and has not begun speaks for the line.
     * <li>Where runs stand beside each other, whatever is prepared begins.
     * <li>Otherwise older ones that have not begun give way; where it takes over, those that have begun too.
     * <li>It begins when none is active.
     * </ol>
     */
    public static List<Move> decide(List<Member> line) {
        List<Move> moves = new ArrayList<>();
        List<Member> waiting = line.stream().filter(member -> !member.active()).toList();
        waiting.stream().filter(Member::prepared).max(Comparator.comparingLong(Member::number)).ifPresent(newest -> {
            if (newest.newer() == NewerStart.RUNS_BESIDE) {
                waiting.stream().filter(Member::prepared).forEach(member -> moves.add(new Move.Begin(member.run())));
                return;
            }
            waiting.stream().filter(member -> member.number() < newest.number())
                    .forEach(member -> moves.add(new Move.GiveWay(member.run(), newest.number())));
            List<Member> active = line.stream().filter(Member::active).toList();
            if (newest.newer() == NewerStart.TAKES_OVER) {
                active.forEach(member -> moves.add(new Move.GiveWay(member.run(), newest.number())));
            }
            if (active.isEmpty()) {
                moves.add(new Move.Begin(newest.run()));
            }
        });
        return moves;
    }
}

package dev.paseo.core.environment;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Gate;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * What other rules would have done to something that stood at a gate. Only what the change asks more, or no longer
 * asks, is judged: the rest was judged on its day. Pure.
 */
public final class DryRun {

    private DryRun() {}

    /** What would have come of it. */
    public enum Outcome {
        /** The same: it went through, or ended at the gate. */
        AS_IT_WAS,
        /** It went through, and would not have: something asked was not so, or came too late. */
        STOPPED,
        /** It went through, and would have waited longer: for people, an answer, or time. */
        WAITED,
        /** It ended at the gate, and all that would have been asked was met by then. */
        LET_THROUGH,
        /** It cannot be told, since something that would have been asked is no longer known. */
        UNKNOWN
    }

    /** @param sentences why, of each criterion that would have made the difference */
    public record Finding(Outcome outcome, List<String> sentences) {
        public static final Finding AS_IT_WAS = new Finding(Outcome.AS_IT_WAS, List.of());

        public Finding {
            sentences = List.copyOf(sentences);
        }
    }

    /** What is asked then that nothing of before surely asks. */
    public static List<Criterion> more(List<Criterion> before, List<Criterion> after) {
        return after.stream().filter(now -> before.stream().noneMatch(was -> Loosening.covers(was, now))).toList();
    }

    /** What is no longer asked, or not surely as strictly. */
    public static List<Criterion> less(List<Criterion> before, List<Criterion> after) {
        return more(after, before);
    }

    /**
     * Of what went through.
     *
     * @param more  what would have been asked besides
     * @param facts as they were at that moment
     */
    public static Finding went(List<Criterion> more, GateFacts facts, Instant moment) {
        Verdict verdict = Gate.judge(more, facts, moment);
        Optional<String> ended = verdict.rejected().or(verdict::expired).map(why -> sentence(why + "."));
        List<String> unmet = verdict.unmet().stream().map(DryRun::said).toList();
        if (ended.isPresent() || !unmet.isEmpty()) {
            return new Finding(Outcome.STOPPED, unmet.isEmpty() ? List.of(ended.orElseThrow()) : unmet);
        }
        List<String> open = verdict.judgements().stream()
                .filter(judgement -> judgement.state() != Judgement.State.MET).map(DryRun::said).toList();
        return open.isEmpty() ? Finding.AS_IT_WAS : new Finding(Outcome.WAITED, open);
    }

    /**
     * Of what ended at the gate.
     *
     * @param after all that would have been asked
     * @param facts as they were when it ended
     */
    public static Finding ended(List<Criterion> after, GateFacts facts, Instant moment) {
        Verdict verdict = Gate.judge(after, facts, moment);
        return verdict.open()
                ? new Finding(Outcome.LET_THROUGH, verdict.judgements().stream().map(DryRun::said).toList())
                : Finding.AS_IT_WAS;
    }

    /** Only the criteria that were asked of this one: people are asked of a set's first member alone. */
    public static List<Criterion> ofMember(List<Criterion> criteria, boolean follows) {
        Stream<Criterion> all = criteria.stream();
        return (follows ? all.filter(criterion -> !Gate.asksPeople(criterion)) : all).toList();
    }

    private static String said(Judgement judgement) {
        return judgement.name() + ": " + judgement.sentence();
    }

    private static String sentence(String text) {
        return text.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + text.substring(1);
    }
}

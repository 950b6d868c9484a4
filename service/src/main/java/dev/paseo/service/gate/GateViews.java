package dev.paseo.service.gate;

import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Tick;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Gates as people look at them, of deployments and of passages alike. */
@Component
public class GateViews {

    private static final int LONGEST_NOTE = 2000;

    public record CriterionView(Judgement.State state, String name, String sentence, Optional<Instant> until) {}

    /**
     * {@code inPlaceOf}: whose voice it was, of a deputy or one to whom it was handed on; {@code counts}: it is about
     * exactly what would be deployed now.
     */
    public record GateDecisionView(String by, Optional<String> inPlaceOf, boolean yes, String comment, Instant at,
            boolean counts) {}

    /** A checklist; {@code outcome} of an item is absent where nobody has ticked it. */
    public record ListView(List<String> from, List<ItemView> items) {}

    public record ItemView(String item, Optional<String> outcome, Optional<String> by, Optional<String> note,
            Optional<String> picture, Optional<Instant> at) {}

    private final Gates gates;
    private final GateDecisions decisions;

    GateViews(Gates gates, GateDecisions decisions) {
        this.gates = gates;
        this.decisions = decisions;
    }

    public static List<CriterionView> criteria(Verdict verdict) {
        return verdict.judgements().stream()
                .map(judgement -> new CriterionView(judgement.state(),
                        judgement.name(), judgement.sentence(), judgement.until()))
                .toList();
    }

    public List<GateDecisionView> decisions(Gates.Standing standing, String digest) {
        return gates.decisions(standing).stream()
                .map(decision -> new GateDecisionView(decision.by(), decision.inPlaceOf(), decision.yes(),
                        decision.comment(),
                        decision.at(),
                        !decision.yes() || decision.digest().equals(digest)))
                .toList();
    }

    public List<ListView> lists(Gates.AtGate at) {
        List<GateDecisions.Ticked> ticks = decisions.ticks(at.standing());
        return gates.checklists(at).stream()
                .map(list -> new ListView(list.from(), list.items().stream().map(item -> item(item, ticks)).toList()))
                .toList();
    }

    private static ItemView item(String item, List<GateDecisions.Ticked> ticks) {
        Optional<GateDecisions.Ticked> newest = ticks.stream().filter(tick -> tick.item().equals(item))
                .reduce((earlier, later) -> later).filter(tick -> !tick.outcome().equals("cleared"));
        return new ItemView(item, newest.map(GateDecisions.Ticked::outcome), newest.map(GateDecisions.Ticked::by),
                newest.map(GateDecisions.Ticked::note).filter(note -> !note.isEmpty()),
                newest.flatMap(GateDecisions.Ticked::picture), newest.map(GateDecisions.Ticked::at));
    }

    /** What a person says about an item; a failure is said with a note. */
    public static Tick tick(String item, String by, Optional<String> outcome, Optional<String> note, Instant now) {
        String word = outcome.orElse("done");
        if (!List.of("done", "failed", "cleared").contains(word)) {
            throw Refusal.invalid("/outcome", "should be done, failed or cleared; got " + word);
        }
        String kept = note.orElse("").strip();
        if (word.equals("failed") && kept.isEmpty()) {
            throw Refusal.invalid("/note", "Say what failed");
        }
        return new Tick(item, by, Tick.Outcome.valueOf(word.toUpperCase(Locale.ROOT)), Shortened.to(kept, LONGEST_NOTE),
                now);
    }
}

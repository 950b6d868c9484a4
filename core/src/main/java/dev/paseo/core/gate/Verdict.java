package dev.paseo.core.gate;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** How a gate stands: all its criteria, and whether it ends the deployment. */
public record Verdict(List<Judgement> judgements, Optional<String> rejected, Optional<String> expired) {

    public Verdict {
        judgements = List.copyOf(judgements);
    }

    /** A gate without criteria. */
    public static final Verdict OPEN = new Verdict(List.of(), Optional.empty(), Optional.empty());

    public boolean open() {
        return rejected.isEmpty() && expired.isEmpty()
                && judgements.stream().allMatch(judgement -> judgement.state() == Judgement.State.MET);
    }

    /** When it should be judged again although nothing else happens. */
    public Optional<Instant> again() {
        return judgements.stream().flatMap(judgement -> judgement.until().stream()).min(Instant::compareTo);
    }

    /** The criteria that nobody can bring about by waiting or deciding. */
    public List<Judgement> unmet() {
        return judgements.stream().filter(judgement -> judgement.state() == Judgement.State.NOT_MET).toList();
    }
}

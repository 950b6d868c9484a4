package dev.paseo.core.gate;

import dev.paseo.core.text.Length;
import dev.paseo.core.gate.Judgement.State;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;

/** Criteria that time alone brings about. */
final class TimeCriteria {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm zzz", Locale.ENGLISH);

    private TimeCriteria() {}

    static Judgement liveFor(Criterion.LiveFor wanted, GateFacts.Stretch stretch, Instant now) {
        String name = "Live for " + Length.of(wanted.length());
        Duration current = stretch.since().map(since -> Duration.between(since, now)).orElse(Duration.ZERO);
        Duration longest = current.compareTo(stretch.longest()) > 0 ? current : stretch.longest();
        if (longest.compareTo(wanted.length()) >= 0) {
            return new Judgement(State.MET, name,
                    "Live and healthy in " + stretch.where() + " for " + Length.of(longest) + ".", Optional.empty());
        }
        if (stretch.since().isPresent()) {
            return new Judgement(State.NOT_YET, name,
                    "Live and healthy in " + stretch.where() + " for " + Length.of(current) + "; "
                            + Length.of(wanted.length().minus(current)) + " to go.",
                    stretch.since().map(since -> since.plus(wanted.length())));
        }
        String been = stretch.longest().isZero() ? ""
                : " It was for " + Length.of(stretch.longest()) + ", and an interrupted stretch does not count on.";
        return new Judgement(State.NOT_MET, name, "It is not live and healthy in " + stretch.where() + " now." + been,
                Optional.empty());
    }

    static Judgement open(Hours hours, Instant now) {
        Optional<Hours.Opening> opening = hours.at(now);
        if (opening.isEmpty()) {
            return new Judgement(State.NOT_MET, "Opening hours",
                    "These hours never come: the rules leave no day open in the next two years.", Optional.empty());
        }
        if (!opening.get().from().isAfter(now)) {
            return new Judgement(State.MET, "Opening hours",
                    "Open until " + TIME.format(opening.get().until().atZone(hours.zone())) + ".", Optional.empty());
        }
        return new Judgement(State.NOT_YET, "Opening hours",
                "Opens " + TIME.format(opening.get().from().atZone(hours.zone())) + ".",
                Optional.of(opening.get().from()));
    }
}

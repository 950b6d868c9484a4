package dev.paseo.core.deployment;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What a person who deploys should know and may go past: a hold, a step back in the line, the same again. Pure. */
public final class Cautions {

    private Cautions() {}

    /** A version and where it stands in its line. */
    public record InLine(String number, long line, long order) {}

    /**
     * In sentences, the weightiest first.
     *
     * @param kind what is asked for; a rollback is meant to step back
     * @param held why the place is held and by whom, as {@code by X: "reason"}
     * @param live what is live there
     */
    public static List<String> of(Kind kind, String place, InLine proposed, Optional<InLine> live,
            Optional<String> held) {
        List<String> cautions = new ArrayList<>();
        held.ifPresent(by -> cautions.add(
                place + " is held " + by + ". Nothing goes there by itself; this goes past the hold, which stays"));
        live.ifPresent(now -> {
            if (now.line() == proposed.line() && now.order() == proposed.order()) {
                if (kind == Kind.PROMOTION) {
                    cautions.add(proposed.number() + " is live there already: this deploys the same version again");
                }
            } else if (kind != Kind.ROLLBACK && now.line() == proposed.line() && proposed.order() < now.order()) {
                cautions.add(proposed.number() + " is older than " + now.number()
                        + ", which is live there: this is a step back in the line");
            } else if (kind != Kind.ROLLBACK && now.line() != proposed.line()) {
                cautions.add(proposed.number() + " is of another line than " + now.number() + ", which is live there");
            }
        });
        return cautions;
    }
}

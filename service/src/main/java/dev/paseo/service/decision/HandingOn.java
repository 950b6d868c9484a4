package dev.paseo.service.decision;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.change.Changes;
import dev.paseo.service.gate.GateDecisions;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Who is asked lets another decide. */
@Component
class HandingOn {

    private final Deciding deciding;
    private final GateDecisions decisions;
    private final Accounts accounts;
    private final Notices notices;
    private final Changes changes;

    HandingOn(Deciding deciding, GateDecisions decisions, Accounts accounts, Notices notices, Changes changes) {
        this.deciding = deciding;
        this.decisions = decisions;
        this.accounts = accounts;
        this.notices = notices;
        this.changes = changes;
    }

    /** Somebody who is asked lets another decide about this one in their place. */
    void handOn(long id, Person person, String to) {
        long deputy = accounts.idOf(to);
        deciding.about(id, (at, entry) -> {
            Evaluation gate = deciding.evaluation(at);
            gate.refusal(person.name()).ifPresent(why -> {
                throw Refusal.notAllowed(why + ", so there is nothing to hand on");
            });
            if (deputy == person.id()) {
                throw Refusal.invalid("/to", "should be somebody else than who hands it on");
            }
            if (!accounts.named(to).may(Action.DECIDE, Optional.of(at.place().component()),
                    Optional.of(at.place().environment()))) {
                throw Refusal.conflict(to + " has no role that decides in " + at.place().environment());
            }
            gate.handOnRefusal(to).ifPresent(why -> {
                throw Refusal.conflict(to + " could not decide either: " + why);
            });
            decisions.standIn(person.id(), deputy, id);
            changes.record(entry.with("to", to));
            String what = at.place().component() + " " + at.version().number() + " into " + at.place().environment();
            notices.tell(Set.of(to),
                    Notices.Said.of(NoticeKind.WAITS, at.place().component(),
                            person.name() + " hands on to you: " + what,
                            "You decide in the place of " + person.name() + "; the two of you count once.",
                            "/deployments/" + id, "handed on " + id + " " + person.name() + " " + to));
        }, person.name(), "decision handed on");
    }
}

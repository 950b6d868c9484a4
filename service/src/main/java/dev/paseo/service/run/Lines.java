package dev.paseo.service.run;

import dev.paseo.core.run.RunStatus;
import dev.paseo.service.change.Changes;
import dev.paseo.core.run.LineQueue.Member;
import dev.paseo.core.run.LineQueue.Move;
import dev.paseo.core.run.LineQueue.NewerStart;
import dev.paseo.core.run.LineQueue;
import dev.paseo.core.run.RunEvent;
import dev.paseo.core.run.RunTimes;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Whose turn it is on a line; the line is locked before any of its runs. */
@Component
class Lines implements EffectHandler {

    static final String KIND = "line-turn";

    private final RunMapper mapper;
    private final Runs runs;
    private final Changes changes;

    Lines(RunMapper mapper, Runs runs, Changes changes) {
        this.mapper = mapper;
        this.runs = runs;
        this.changes = changes;
    }

    /** A run is prepared: it begins, or waits for its turn. */
    void prepared(Run run) {
        changes.run(() -> {
            mapper.lockLine(run.lineId());
            List<Member> line = members(run.lineId()).stream().map(member -> member.run() == run.id()
                    ? new Member(member.run(), member.number(), member.active(), true, member.newer()) : member)
                    .toList();
            List<Move> moves = LineQueue.decide(line);
            boolean begins = moves.contains(new Move.Begin(run.id()));
            runs.apply(run.id(), new RunEvent.Prepared(begins));
            moves.stream().filter(move -> !move.equals(new Move.Begin(run.id()))).forEach(move -> carryOut(run, move));
        });
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public void perform(String body) {
        turn(Long.parseLong(body));
    }

    @Override
    public void gaveUp(String body, String error) {
        throw new IllegalStateException("line " + body + " stands still: " + error);
    }

    private void turn(long line) {
        changes.run(() -> {
            mapper.lockLine(line);
            List<Move> moves = LineQueue.decide(members(line));
            if (!moves.isEmpty()) {
                Run any = mapper.byId(mapper.open(line).getFirst().id());
                moves.forEach(move -> carryOut(any, move));
            }
        });
    }

    private List<Member> members(long line) {
        return mapper.open(line).stream()
                .map(row -> new Member(row.id(), row.number(), row.status() != RunStatus.WAITING, row.prepared(),
                        NewerStart.valueOf(row.newerStart().toUpperCase(Locale.ROOT))))
                .toList();
    }

    private void carryOut(Run sibling, Move move) {
        switch (move) {
            case Move.Begin(long run) -> runs.apply(run, new RunEvent.TurnCame());
            case Move.GiveWay(long run, long to) -> {
                Run row = runs.lock(run);
                if (row.status() != RunStatus.CANCELLING) {
                    runs.apply(row, new RunEvent.CancelAsked("gave way to " + sibling.component() + "#" + to));
                }
            }
        }
    }

    /** A run goes on from what failed; it begins when its turn comes. */
    void resume(Run run, String by) {
        changes.run(() -> {
            mapper.lockLine(run.lineId());
            runs.apply(run.id(), new RunEvent.ResumeAsked()).ifPresent(reason -> {
                throw Refusal.conflict(run.component() + "#" + run.number() + " cannot be resumed: " + reason);
            });
            changes.record(AuditTrail.Entry.of(by, "run resumed", run.component() + "#" + run.number()));
            turn(run.lineId());
        });
    }

    /** Ends runs that take longer than they may. */
    @Scheduled(fixedDelay = 2000)
    void endLateOnes() {
        for (long id : mapper.late(changes.now())) {
            changes.run(() -> {
                Run row = runs.lock(id);
                if (row.status() == RunStatus.RUNNING || row.status() == RunStatus.CANCELLING) {
                    runs.apply(row, RunTimes.over(runs.file(row).timeout()));
                }
            });
        }
    }

    /** Where a line's turn is, for people: the run before this one that it waits for. */
    Optional<Long> waitsFor(Run run) {
        return run.status() == RunStatus.WAITING
                ? mapper.open(run.lineId()).stream().filter(member -> member.status() != RunStatus.WAITING)
                        .map(RunMapper.MemberRow::number).findFirst()
                : Optional.empty();
    }
}

package dev.paseo.service.run;

import dev.paseo.core.run.RunState;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.text.Word;
import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import org.springframework.stereotype.Component;

/** What follows from a run's end: whoever listens and whoever pushed is told, and what it may start is looked at. */
@Component
class RunEnds {

    private final RunMapper mapper;
    private final Effects effects;
    private final Announcements announcements;
    private final Notices notices;
    private final Changes changes;

    RunEnds(RunMapper mapper, Effects effects, Announcements announcements, Notices notices, Changes changes) {
        this.mapper = mapper;
        this.effects = effects;
        this.announcements = announcements;
        this.notices = notices;
        this.changes = changes;
    }

    void started(Run row) {
        announcements.runStarted(row.component(), row.number());
    }

    /** In the transaction that ends it. */
    void ended(Run row, RunState after, String name) {
        announcements.runFinished(row.component(), row.number(), row.revision(), Word.of(after.status()),
                after.reason());
        tell(row, after, name);
        changes.record(AuditTrail.Entry.of("paseo", "run " + Word.of(after.status()), name)
                .because(after.reason().orElse("")));
        effects.add("run " + row.id(), "run " + row.id() + " ended, revision " + row.revision(),
                RunStarts.ENDED, Long.toString(row.id()));
        effects.add("line " + row.lineId(), "turn after run " + row.id() + " revision " + row.revision(),
                Lines.KIND, Long.toString(row.lineId()));
    }

    /** That it failed, or that the branch is mended. */
    private void tell(Run row, RunState after, String name) {
        boolean failed = after.status() == RunStatus.FAILED;
        boolean mended = !failed && after.status() != RunStatus.CANCELLED
                && mapper.endedBefore(row.lineId(), row.id()).filter("failed"::equals).isPresent();
        if (failed || mended) {
            String title = name + (failed ? " failed" : " passed: " + row.branch() + " is mended");
            String body = "Commit: " + row.commitSummary() + "\nBranch: " + row.branch()
                    + after.reason().map(why -> "\nWhy: " + why).orElse("");
            String path = "/runs/" + row.component() + "/" + row.number();
            notices.tellPushers(row.componentId(), row.commitId(), Notices.Said.of(
                    failed ? NoticeKind.RUN_FAILED : NoticeKind.RUN_MENDED, row.component(), title, body, path,
                    name + " " + row.revision()));
            notices.tellFollowers(row.componentId(), Notices.Said.of(NoticeKind.FOLLOWED, row.component(), title,
                    body, path, name + " " + row.revision()));
        }
    }
}

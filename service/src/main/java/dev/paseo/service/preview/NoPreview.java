package dev.paseo.service.preview;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.version.Versions;
import org.springframework.stereotype.Component;

/** A branch gets no preview, and whoever pushed it is told why. */
@Component
class NoPreview {

    private final Changes changes;
    private final Notices notices;

    NoPreview(Changes changes, Notices notices) {
        this.changes = changes;
        this.notices = notices;
    }

    void tell(Versions.Version version, String why) {
        changes.run(() -> {
            changes.record(AuditTrail.Entry.of("paseo", "no preview", version.component() + " " + version.number())
                    .because(why).with("branch", version.branch()));
            notices.tellPushers(version.componentId(), version.commit().orElseThrow(),
                    Notices.Said.of(NoticeKind.PREVIEW, version.component(),
                            "There is no preview of " + version.branch(),
                            version.component() + " " + version.number() + " gets none: " + why + ".",
                            "/versions/" + version.component() + "/" + version.number(), "none of " + version.id()));
        });
    }
}

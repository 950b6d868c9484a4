package dev.paseo.service.releaserecord;

import dev.paseo.core.gate.InWords;
import dev.paseo.core.text.Word;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.deployment.DeploymentViews;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.releaserecord.ReleaseRecords.Reader;
import dev.paseo.service.releaserecord.ReleaseRecords.RecordHostView;
import dev.paseo.service.releaserecord.ReleaseRecords.ReleaseView;
import java.time.Instant;
import org.springframework.stereotype.Component;

/** One deployment in a release record, with what makes it good as proof. */
@Component
class RecordedDeployments {

    private static final int MOST_ENTRIES = 200;

    private final DeploymentViews views;
    private final Environments environments;
    private final RecordedVersions versions;
    private final Evidence evidence;
    private final AuditTrail audit;

    RecordedDeployments(DeploymentViews views, Environments environments, RecordedVersions versions, Evidence evidence,
            AuditTrail audit) {
        this.views = views;
        this.environments = environments;
        this.versions = versions;
        this.evidence = evidence;
        this.audit = audit;
    }

    ReleaseView of(Deployment row, Reader reader) {
        DeploymentViews.DeploymentView view = views.whole(row, reader.person().name());
        Environments.Environment environment = environments.named(row.environment());
        Instant then = row.startedAt() == null ? row.endedAt() == null ? reader.now() : row.endedAt() : row.startedAt();
        return new ReleaseView(view.deployment(), versions.of(row.versionId()), view.subject(),
                view.emergency(),
                environments.rulesAsOf(environment.id(), then).toEnter(row.kind(), row.component()).stream()
                        .map(InWords::of).toList(),
                view.decisions(), view.checklists(), view.comparison(),
                evidence.added(row.versionId()), view.plan(),
                view.hosts().stream().map(host -> new RecordHostView(host.host(),
                        Word.of(host.phase()), host.reason())).toList(),
                view.tasks(), view.causes(), audit.about(row.id(), MOST_ENTRIES));
    }
}

package dev.paseo.service.place;

import dev.paseo.service.change.Changes;
import dev.paseo.api.agent.Assignment;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.core.text.Word;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Carries out what follows from decisions about places; all of it rows, in the same transaction. */
@Component
class Outcomes {

    private final DeploymentMapper mapper;
    private final Environments environments;
    private final Versions versions;
    private final WorkBoard board;
    private final Around around;

    /** What every change leaves. */
    @Component
    record Around(Changes changes, Causes causes, Secrets secrets, Json json, Announcements announcements,
            Passages passages, Stretches stretches, PeopleTold people, SetMembership sets, Loosenings loosenings,
            LiveStates live) {}

    Outcomes(DeploymentMapper mapper, Environments environments, Versions versions, WorkBoard board, Around around) {
        this.mapper = mapper;
        this.environments = environments;
        this.versions = versions;
        this.board = board;
        this.around = around;
    }

    void carryOut(LoadedPlace kept, PlaceEffect effect) {
        Place place = kept.place();
        switch (effect) {
            case PlaceEffect.OfferTask(long deployment, String host, var task) -> board
                    .offerOnHost(Assignment.Kind.valueOf(task.name()), deployment, acting(place, host).id());
            case PlaceEffect.StopTask(long deployment, String host) -> board.stopOnHost(deployment,
                    acting(place, host).id(), host.isEmpty());
            case PlaceEffect.WithdrawTask(long deployment, String host) -> board.withdrawInstall(deployment,
                    host(place, host).id());
            case PlaceEffect.WentLive(long deployment) -> wentLive(place, kept.row(deployment));
            case PlaceEffect.PassageOpened(long deployment) -> around.passages()
                    .opened(kept.row(deployment).versionId(), place.environmentId(), deployment);
            case PlaceEffect.Settled(long deployment) -> around.passages().settled(kept.row(deployment).versionId(),
                    place.environmentId(), kept.row(deployment).causeId());
            case PlaceEffect.NotSettled(long deployment, String reason) -> notSettled(place, kept.row(deployment),
                    reason);
            case PlaceEffect.TakenBack(long deployment) -> takenBack(place, kept, kept.row(deployment));
        }
    }

    /** The host itself, or the one whose agent acts for the place. */
    private PlaceHost acting(Place place, String name) {
        return name.isEmpty() ? environments.acting(place) : host(place, name);
    }

    private PlaceHost host(Place place, String name) {
        return environments.host(place.id(), name)
                .orElseThrow(() -> new IllegalStateException(
                        name + " is no host of " + place.component() + " in " + place.environment()));
    }

    private void wentLive(Place place, Deployment row) {
        stated(place, row, "live now");
        stretch(place, true);
        versions.wentLive(row.id());
        Versions.Version version = versions.byId(row.versionId());
        around.announcements().live(place.component(), place.environment(), row.id(), version.number(),
                version.digest(), row.replacesId() != null);
        if (row.kind().reviewedIfLoosened()) {
            around.loosenings().wentLive(row.id(), place.environmentId(), place.componentId())
                    .ifPresent(loosened -> around.people().loosened(place, row, loosened));
        }
        around.changes().publish("whereabouts", place.component());
    }

    /** The trail states what is live where nothing comes and goes by itself. */
    private void stated(Place place, Deployment row, String what) {
        if (!mapper.temporary(place.id())) {
            around.changes()
                    .record(around.live().into(AuditTrail.Entry
                            .of("paseo", what, place.component() + " " + versions.byId(row.versionId()).number())
                            .in(place.environment())
                            .with("deployment", Long.toString(row.id())), place.id()));
        }
    }

    /** How long it has been healthy there is counted from now. */
    private void stretch(Place place, boolean live) {
        around.stretches().end(place.id());
        if (live) {
            around.stretches().begin(place.id());
        }
    }

    private void notSettled(Place place, Deployment row, String reason) {
        around.changes().record(AuditTrail.Entry
                .of("paseo", "passage stays open", place.component() + " " + versions.byId(row.versionId()).number())
                .in(place.environment())
                .because("a test of what is live failed: " + reason).with("deployment", Long.toString(row.id())));
        around.passages().testFailed(row.versionId(), place.environmentId(), reason);
        around.people().testFailed(place, row, reason);
    }

    private void takenBack(Place place, LoadedPlace kept, Deployment row) {
        Optional<Deployment> again = kept.snapshot().live().flatMap(live -> mapper.byId(live.deployment()));
        stated(place, again.orElse(row), again.isPresent() ? "live again" : "not live any more");
        stretch(place, again.isPresent());
        versions.takenBack(row.id());
        around.changes().publish("whereabouts", place.component());
    }

    /** The deployment begins: what exactly it deploys, with which settings, is recorded now. */
    void begins(Place place, Deployment row, String subject) {
        List<String> names = versions.byId(row.versionId()).recipe().map(recipe -> recipe.secrets()).orElse(List.of());
        Map<String, Long> revisions = around.secrets().revisionsWithHosts(names, place.componentId(),
                place.environmentId());
        mapper.begins(row.id(), subject, place.settingsRevision(), around.json().write(revisions));
    }

    /** Its status changed. */
    void moved(Place place, Deployment row, DeploymentState deployment) {
        String because = around.causes().chain(row.causeId()).getFirst().sentence();
        around.changes()
                .record(AuditTrail.Entry
                        .of("paseo", "deployment " + Word.of(deployment.status()),
                                place.component() + " " + deployment.version())
                        .in(place.environment()).because(deployment.ending().orElse(because))
                        .with("deployment", Long.toString(row.id()))
                        .with("cause", deployment.ending().map(why -> because).orElse("")));
        around.people().moved(place, row, deployment);
        if (row.promotionId() != null) {
            around.sets().lookAgain(row.promotionId(), row.id(), deployment.status());
        }
        around.changes().publish("whereabouts", place.component());
    }

    void tell(long deployment) {
        around.changes().publish("deployment", Long.toString(deployment));
    }
}

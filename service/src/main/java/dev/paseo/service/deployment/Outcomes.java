package dev.paseo.service.deployment;

import dev.paseo.api.agent.Assignment;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
    record Around(AuditTrail audit, Telling telling, ServiceClock clock, Causes causes, Secrets secrets, Json json, Announcements announcements,
            Passages passages, Stretches stretches, PeopleTold people, Effects effects, Loosenings loosenings) {}

    Outcomes(DeploymentMapper mapper, Environments environments, Versions versions, WorkBoard board, Around around) {
        this.mapper = mapper;
        this.environments = environments;
        this.versions = versions;
        this.board = board;
        this.around = around;
    }

    void carryOut(Place place, PlaceEffect effect) {
        switch (effect) {
            case PlaceEffect.OfferTask(long deployment, String host, var task) ->
                    board.offerOnHost(Assignment.Kind.valueOf(task.name()), deployment, acting(place, host).id());
            case PlaceEffect.StopTask(long deployment, String host) -> board.stopOnHost(deployment, acting(place, host).id(), host.isEmpty());
            case PlaceEffect.WithdrawTask(long deployment, String host) -> board.withdrawInstall(deployment, host(place, host).id());
            case PlaceEffect.HostHas(long deployment, String host, var content) -> hostHas(place, deployment, host(place, host), content);
            case PlaceEffect.WentLive(long deployment) -> wentLive(place, deployment);
            case PlaceEffect.Settled(long deployment) -> settled(place, deployment);
            case PlaceEffect.NotSettled(long deployment, String reason) -> notSettled(place, deployment, reason);
            case PlaceEffect.TakenBack(long deployment) -> takenBack(place, deployment);
        }
    }

    /** The host itself, or the one whose agent acts for the place. */
    private PlaceHost acting(Place place, String name) {
        return name.isEmpty() ? environments.acting(place) : host(place, name);
    }

    private PlaceHost host(Place place, String name) {
        return environments.host(place.id(), name)
                .orElseThrow(() -> new IllegalStateException(name + " is no host of " + place.component() + " in " + place.environment()));
    }

    private void hostHas(Place place, long deployment, PlaceHost host, PlaceEffect.Content content) {
        mapper.closeInterval(host.id(), place.componentId(), around.clock().now());
        mapper.endDoubt(place.id(), host.id());
        DeploymentMapper.BriefRow row = mapper.brief(deployment);
        switch (content) {
            case THIS_VERSION -> mapper.openInterval(host.id(), place.componentId(), row.versionId(), deployment, around.clock().now());
            case PREVIOUS_VERSION -> Optional.ofNullable(row.replacesId()).map(mapper::brief).ifPresent(previous ->
                    mapper.openInterval(host.id(), place.componentId(), previous.versionId(), previous.id(), around.clock().now()));
            case UNKNOWN -> mapper.doubt(place.id(), host.id(), deployment, around.clock().now());
            case NOTHING -> { }
        }
    }

    private void wentLive(Place place, long deployment) {
        DeploymentRow row = mapper.byId(deployment).orElseThrow();
        Instant now = Objects.requireNonNull(row.liveAt());
        if (row.replacesId() != null) {
            mapper.replaced(row.replacesId(), now);
        }
        mapper.live(place.id(), deployment, state(row).course().sides().filled().orElse(null));
        stated(place, row, "live now");
        stretch(place, Optional.of(row), now);
        Versions.Sealed version = versions.byId(row.versionId());
        around.announcements().live(place.component(), place.environment(), deployment, version.number(), version.digest(), row.replacesId() != null);
        if (!row.kind().equals(Kind.PREVIEW.name().toLowerCase(java.util.Locale.ROOT))) {
            around.loosenings().wentLive(deployment, place.environmentId(), place.componentId()).ifPresent(loosened -> around.people().loosened(place, row, loosened));
        }
        if (promotion(row)) {
            around.passages().opened(row.versionId(), place.environmentId(), deployment);
        }
        around.telling().tell("whereabouts", place.component());
    }

    /** The trail states what is live where nothing comes and goes by itself. */
    private void stated(Place place, DeploymentRow row, String what) {
        if (!mapper.temporary(place.id())) {
            around.audit().record(LiveStates.into(AuditTrail.Entry.of("paseo", what, place.component() + " " + versions.byId(row.versionId()).number()).in(place.environment())
                    .with("deployment", Long.toString(row.id())), place.id(), mapper));
        }
    }

    /** From now on this is live there, or nothing. */
    private void stretch(Place place, Optional<DeploymentRow> live, Instant now) {
        mapper.endStretch(place.id(), now);
        around.stretches().end(place.id());
        live.ifPresent(row -> {
            mapper.beginStretch(place.id(), row.id(), row.versionId(), now);
            around.stretches().begin(place.id());
        });
    }

    private static boolean promotion(DeploymentRow row) {
        return row.kind().equals(Kind.PROMOTION.name().toLowerCase(java.util.Locale.ROOT));
    }

    private DeploymentState state(DeploymentRow row) {
        return around.json().read(row.state(), DeploymentState.class);
    }

    /** It was watched and tested: its walk goes on from here. */
    private void settled(Place place, long deployment) {
        DeploymentRow row = mapper.byId(deployment).orElseThrow();
        if (promotion(row) || row.kind().equals(Places.word(Kind.REDEPLOY))) {
            around.passages().settled(row.versionId(), place.environmentId(), row.causeId());
        }
    }

    private void notSettled(Place place, long deployment, String reason) {
        DeploymentRow row = mapper.byId(deployment).orElseThrow();
        around.audit().record(AuditTrail.Entry.of("paseo", "passage stays open", place.component() + " " + versions.byId(row.versionId()).number()).in(place.environment())
                .because("a test of what is live failed: " + reason).with("deployment", Long.toString(deployment)));
        around.passages().testFailed(row.versionId(), place.environmentId(), reason);
        around.people().testFailed(place, row, reason);
    }

    private void takenBack(Place place, long deployment) {
        DeploymentRow row = mapper.byId(deployment).orElseThrow();
        if (state(row).wayBack().removes()) {
            mapper.live(place.id(), null, null);
            stated(place, row, "not live any more");
            stretch(place, Optional.empty(), around.clock().now());
            around.telling().tell("whereabouts", place.component());
            return;
        }
        mapper.live(place.id(), row.replacesId(), null);
        mapper.liveSide(place.id(), state(row).course().sides().before().or(place::liveSide).orElse(null));
        if (row.replacesId() != null) {
            mapper.again(row.replacesId());
        }
        mapper.byId(Optional.ofNullable(row.replacesId()).orElse(deployment)).ifPresent(now -> stated(place, now, row.replacesId() == null ? "not live any more" : "live again"));
        stretch(place, Optional.ofNullable(row.replacesId()).flatMap(mapper::byId), around.clock().now());
        around.telling().tell("whereabouts", place.component());
    }

    /** The deployment begins: what exactly it deploys, with which settings, is recorded now. */
    void begins(Place place, DeploymentRow row, String subject) {
        List<String> names = versions.byId(row.versionId()).recipe().map(recipe -> recipe.secrets()).orElse(List.of());
        Map<String, Long> revisions = around.secrets().revisionsWithHosts(names, place.componentId(), place.environmentId());
        mapper.begins(row.id(), subject, place.settingsRevision(), around.json().write(revisions), place.liveDeployment().orElse(null));
    }

    /** Its status changed. */
    void moved(Place place, DeploymentRow row, DeploymentState deployment) {
        String because = around.causes().chain(row.causeId()).getFirst().sentence();
        around.audit().record(AuditTrail.Entry.of("paseo", "deployment " + Places.word(deployment.status()), place.component() + " " + deployment.version())
                .in(place.environment()).because(deployment.ending().orElse(because)).with("deployment", Long.toString(row.id())).with("cause", deployment.ending().map(why -> because).orElse("")));
        around.people().moved(place, row, deployment);
        if (row.promotionId() != null) {
            Sets.lookAgain(around.effects(), row.promotionId(), row.id(), Places.word(deployment.status()));
        }
        around.telling().tell("whereabouts", place.component());
    }

    void tell(long deployment) {
        around.telling().tell("deployment", Long.toString(deployment));
    }
}

package dev.paseo.service.place;

import dev.paseo.api.agent.Assignment;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceHost;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import org.springframework.stereotype.Component;

/** Carries out what follows from decisions about places; all of it rows, in the same transaction. */
@Component
class Outcomes {

    private final Environments environments;
    private final WorkBoard board;
    private final LiveOutcomes live;
    private final PassageOutcomes passages;
    private final StatusOutcomes statuses;

    Outcomes(Environments environments, WorkBoard board, LiveOutcomes live, PassageOutcomes passages,
            StatusOutcomes statuses) {
        this.environments = environments;
        this.board = board;
        this.live = live;
        this.passages = passages;
        this.statuses = statuses;
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
            case PlaceEffect.WentLive(long deployment) -> live.wentLive(place, kept.row(deployment));
            case PlaceEffect.PassageOpened(long deployment) -> passages.opened(place, kept.row(deployment));
            case PlaceEffect.Settled(long deployment) -> passages.settled(place, kept.row(deployment));
            case PlaceEffect.NotSettled(long deployment, String reason) -> passages.notSettled(place,
                    kept.row(deployment), reason);
            case PlaceEffect.TakenBack(long deployment) -> live.takenBack(kept, kept.row(deployment));
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

    /** Its status changed. */
    void moved(Place place, Deployment row, DeploymentState deployment) {
        statuses.moved(place, row, deployment);
    }

    void tell(long deployment) {
        statuses.tell(deployment);
    }
}

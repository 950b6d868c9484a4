package dev.paseo.service.deployment;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.NoWayBack;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Review;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.secret.Lack;
import dev.paseo.core.text.Word;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.passage.WalkStays;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.Places;
import dev.paseo.service.place.Planner;
import dev.paseo.service.place.SetMembership;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.LongUnaryOperator;
import org.springframework.stereotype.Component;

/** Requests for deployments, by people and by the walk; and people's decisions about them. */
@Component
public class Requests {

    private final Deployments deployments;
    private final Places places;
    private final Gates gates;
    private final Environments environments;
    private final Around around;

    /** What a request needs and leaves. */
    @Component
    record Around(Causes causes, Changes changes, Secrets secrets, Planner planner, HostContents contents, Holds holds,
            SetMembership sets, WalkStays stays, Versions versions) {}

    Requests(Deployments deployments, Places places, Gates gates, Environments environments, Around around) {
        this.deployments = deployments;
        this.places = places;
        this.gates = gates;
        this.environments = environments;
        this.around = around;
    }

    /**
     * What is wanted.
     *
     * @param person    none: the walk or a push
     * @param promotion of the set that it is requested with: takes the deployment's number, within its transaction, and
     *                  gives the promotion's
     * @param emergency the reason for which it goes past unmet criteria, hold and closure
     */
    public record Wanted(Place place, Versions.Version version, Kind kind, Optional<Person> person, Cause cause,
            Optional<String> emergency, Optional<LongUnaryOperator> promotion) {
        public Wanted(Place place, Versions.Version version, Kind kind, Optional<Person> person, Cause cause,
                Optional<String> emergency) {
            this(place, version, kind, person, cause, emergency, Optional.empty());
        }
    }

    /**
     * The walk asks by itself. Where something is missing there it stays, and is tried again; where it would go
     * backwards, or twice, that is written down and ends it.
     */
    void byWalk(Versions.Version version, Place place, String from) {
        Optional<String> lacks = impossible(place, version);
        if (lacks.isPresent()) {
            around.stays().stays(version, place.environment(), from, lacks.get());
            return;
        }
        try {
            request(new Wanted(place, version, Kind.PROMOTION, Optional.empty(),
                    new Cause.Walk(version.component(), version.number(), from), Optional.empty()));
        } catch (Refusal refused) {
            if (refused.kind() != Refusal.Kind.CONFLICT) {
                throw refused;
            }
            around.stays().ends(version, place.environment(), String.valueOf(refused.getMessage()));
            return;
        }
        around.stays().goesOn(version, place.environment());
    }

    /** What is missing for it to be deployed there, as a sentence. */
    private Optional<String> impossible(Place place, Versions.Version version) {
        try {
            refuseImpossible(place, version, recipe(version));
            return Optional.empty();
        } catch (Refusal missing) {
            return Optional.of(String.valueOf(missing.getMessage()));
        }
    }

    private static Recipe recipe(Versions.Version version) {
        return version.recipe().orElseThrow(() -> Refusal.conflict(version.component() + " " + version.number()
                + " has no deployment in its pipeline file: nothing says how to deploy it"));
    }

    /** The deployment's number. */
    public long request(Wanted wanted) {
        Place place = wanted.place();
        Versions.Version version = wanted.version();
        Recipe recipe = recipe(version);
        refuseImpossible(place, version, recipe);
        return places.knowing(place.id(), version, () -> added(wanted, recipe));
    }

    private long added(Wanted wanted, Recipe recipe) {
        Place place = wanted.place();
        Versions.Version version = wanted.version();
        long[] id = new long[1];
        places.require(place.id(), now -> {
            long because = around.causes().add(wanted.cause(), OptionalLong.of(parent(version, wanted.cause())));
            id[0] = deployments.ask(new Deployments.Asked(now.id(), version.id(), wanted.kind(),
                    wanted.person().map(Person::id), because, now.settingsRevision(), wanted.emergency()));
            wanted.promotion().map(of -> of.applyAsLong(id[0]))
                    .ifPresent(promotion -> around.sets().belongs(id[0], promotion));
            if (wanted.emergency().isEmpty()) {
                refuseUnmet(now, id[0], wanted.person());
            } else {
                deployments.toReview(id[0], Review.due(around.changes().now()));
            }
            around.changes().record(AuditTrail.Entry
                    .of(wanted.person().map(Person::name).orElse("paseo"), Word.of(wanted.kind()) + " requested",
                            version.component() + " " + version.number())
                    .in(now.environment()).because(wanted.cause().sentence())
                    .with("deployment", Long.toString(id[0])).with("emergency", wanted.emergency().orElse(""))
                    .with("past the hold", wanted.person().flatMap(person -> around.holds().held(now))
                            .map(hold -> hold.by() + ": " + hold.reason()).orElse("")));
            if (wanted.kind() == Kind.ROLLBACK && around.holds().held(now).isEmpty()) {
                around.holds().hold(now, wanted.person().orElseThrow(),
                        "rolled back" + places.live(now).map(live -> " from " + live.number()).orElse("")
                                + (wanted.cause() instanceof Cause.Asked(String by, Optional<String> why)
                                        ? why.filter(text -> !text.isBlank()).map(text -> ": " + text).orElse("")
                                        : ""));
            }
            return Optional.of(new PlaceEvent.Requested(state(id[0], now, wanted, recipe)));
        }, reason -> Refusal.conflict(version.component() + " " + version.number() + " is not requested into "
                + place.environment() + ": " + reason));
        return id[0];
    }

    /**
     * Back from the walk to the deployment it came from, from there to the run; from a request to the version's run.
     */
    private long parent(Versions.Version version, Cause cause) {
        if (cause instanceof Cause.Walk(String component, String number, String from) && !from.isEmpty()) {
            Optional<Long> earlier = deployments.ofVersion(version.id()).stream()
                    .filter(row -> row.environment().equals(from))
                    .map(Deployment::causeId).findFirst();
            if (earlier.isPresent()) {
                return earlier.get();
            }
        }
        return version.runNumber().map(
                run -> around.causes().add(new Cause.Run(version.component(), run), OptionalLong.of(version.cause())))
                .orElse(version.cause());
    }

    private void refuseImpossible(Place place, Versions.Version version, Recipe recipe) {
        if (place.retired().isPresent()) {
            throw Refusal.conflict(
                    place.component() + " in " + place.environment() + " is retired: nothing is deployed there");
        }
        if (version.blocked()) {
            throw Refusal.conflict(version.component() + " " + version.number() + " is blocked");
        }
        List<Lack> lacks = around.secrets().lacks(recipe.secrets(), place.componentId(), place.environmentId());
        if (!lacks.isEmpty()) {
            throw Refusal.conflict(
                    "The recipe of " + version.component() + " " + version.number() + " uses what it may not have: "
                            + Lack.sentences(lacks, place.component(), Optional.of(place.environment())));
        }
        around.planner().reasonAgainst(place, version).ifPresent(why -> {
            throw Refusal.conflict(version.component() + " " + version.number() + " cannot be deployed to "
                    + place.environment() + ": " + why);
        });
        environments.hosts(place.id()).stream()
                .flatMap(
                        host -> around.contents().lacks(place, version, host.name(), place.settingsRevision()).stream())
                .findFirst()
                .ifPresent(why -> {
                    throw Refusal.conflict(why);
                });
    }

    /** What neither time nor a decision brings about is told at once, not discovered at the gate. */
    private void refuseUnmet(Place place, long id, Optional<Person> person) {
        Verdict verdict = gates.evaluate(places.atGate(place, deployments.get(id))).verdict();
        Optional<Judgement> unmet = verdict.unmet().stream().findFirst();
        if (person.isPresent() && unmet.isPresent()) {
            throw Refusal.conflict(
                    place.environment() + " does not take it: " + unmet.get().name() + ". " + unmet.get().sentence());
        }
    }

    private DeploymentState state(long id, Place place, Wanted wanted, Recipe recipe) {
        Versions.Version version = wanted.version();
        boolean takesOver = environments.byId(place.environmentId()).rules().takesOver();
        Optional<Long> bar = around.versions().noWayBack(version).map(NoWayBack::order);
        DeploymentState asked = new DeploymentState(id, version.number(), version.line(), version.order(),
                wanted.kind(), wanted.person().isEmpty(),
                DeploymentStatus.WAITING, List.of(), DeploymentState.OnFailure.valueOf(recipe.onFailure().name()),
                recipe.parts().removal().isEmpty() ? DeploymentState.WayBack.NONE : DeploymentState.WayBack.REMOVAL,
                Optional.empty(), null,
                new DeploymentState.Terms(wanted.emergency().isPresent(), bar, takesOver,
                        recipe.eachHost().isEmpty() ? Optional.of(true) : Optional.empty()));
        return around.planner().plan(asked, place, place.liveSide(), version);
    }

    /** The deployments of this kind that were requested of a version. */
    public List<Deployment> ofVersion(long version, Kind kind) {
        return deployments.ofVersion(version).stream().filter(row -> row.kind() == kind).toList();
    }

    void cancel(long id, Person person) {
        Deployment row = deployments.get(id);
        places.require(row.placeId(), place -> {
            around.changes()
                    .record(AuditTrail.Entry.of(person.name(), "deployment cancel asked", place.component())
                            .in(place.environment())
                            .with("deployment", Long.toString(id)));
            return Optional.of(new PlaceEvent.CancelAsked(id, person.name()));
        }, reason -> Refusal.conflict("Deployment " + id + " cannot be cancelled: " + reason));
    }
}

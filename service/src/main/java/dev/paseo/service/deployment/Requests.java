package dev.paseo.service.deployment;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.deployment.DeploymentMapper.DeploymentRow;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** Requests for deployments, by people and by the walk; and people's decisions about them. */
@Component
class Requests {

    private final DeploymentMapper mapper;
    private final Places places;
    private final Gates gates;
    private final Environments environments;
    private final Around around;

    /** What a request needs and leaves. */
    @Component
    record Around(Causes causes, AuditTrail audit, ServiceClock clock, Secrets secrets) {}

    Requests(DeploymentMapper mapper, Places places, Gates gates, Environments environments, Around around) {
        this.mapper = mapper;
        this.places = places;
        this.gates = gates;
        this.environments = environments;
        this.around = around;
    }

    /** A person asks for a promotion; the deployment's number. */
    long byPerson(Versions.Sealed version, String environment, Person person, Optional<String> comment) {
        Place place = environments.place(version.component(), environment);
        return request(place, version, Optional.of(person), new Cause.Asked(person.name(), comment));
    }

    /** The walk asks by itself; empty where that would go backwards, or twice. */
    Optional<Long> byWalk(Versions.Sealed version, Place place, String from) {
        try {
            return Optional.of(request(place, version, Optional.empty(), new Cause.Walk(version.component(), version.number(), from)));
        } catch (Refusal refused) {
            if (refused.kind() == Refusal.Kind.CONFLICT) {
                around.audit().record(AuditTrail.Entry.of("paseo", "walk stays", version.component() + " " + version.number())
                        .in(place.environment()).because(refused.getMessage()));
                return Optional.empty();
            }
            throw refused;
        }
    }

    private long request(Place place, Versions.Sealed version, Optional<Person> person, Cause cause) {
        PipelineFile.Recipe recipe = version.recipe().orElseThrow(() -> Refusal.conflict(version.component() + " " + version.number()
                + " has no deployment in its pipeline file: nothing says how to deploy it"));
        refuseBlockedAndMissing(place, version, recipe);
        places.learn(place, version);
        long[] id = new long[1];
        places.require(place.id(), now -> {
            long because = around.causes().add(cause, OptionalLong.of(parent(version, cause)));
            DeploymentMapper.NewDeployment row = new DeploymentMapper.NewDeployment(now.id(), version.id(), "promotion",
                    person.map(Person::id).orElse(null), because, now.settingsRevision(), around.clock().now());
            mapper.add(row);
            id[0] = row.id;
            refuseUnmet(now, row.id, person);
            around.audit().record(AuditTrail.Entry.of(person.map(Person::name).orElse("paseo"), "promotion requested",
                    version.component() + " " + version.number()).in(now.environment()).because(cause.sentence())
                    .with("deployment", Long.toString(row.id)));
            return Optional.of(new PlaceEvent.Requested(state(row.id, now, version, recipe, person.isEmpty())));
        }, reason -> Refusal.conflict(version.component() + " " + version.number() + " is not requested into " + place.environment() + ": " + reason));
        return id[0];
    }

    /** Back from the walk to the deployment it came from, from there to the run; from a request to the version's run. */
    private long parent(Versions.Sealed version, Cause cause) {
        if (cause instanceof Cause.Walk(String component, String number, String from) && !from.isEmpty()) {
            Optional<Long> earlier = mapper.ofVersion(version.id()).stream()
                    .filter(row -> environments.placeById(row.placeId()).environment().equals(from)).map(DeploymentRow::causeId).findFirst();
            if (earlier.isPresent()) {
                return earlier.get();
            }
        }
        return version.runNumber().map(run -> around.causes().add(new Cause.Run(version.component(), run), OptionalLong.of(version.cause())))
                .orElse(version.cause());
    }

    private void refuseBlockedAndMissing(Place place, Versions.Sealed version, PipelineFile.Recipe recipe) {
        if (version.blocked()) {
            throw Refusal.conflict(version.component() + " " + version.number() + " is blocked");
        }
        List<String> missing = around.secrets().missing(recipe.secrets(), place.componentId(), place.environmentId());
        if (!missing.isEmpty()) {
            throw Refusal.conflict("the recipe of " + version.component() + " " + version.number() + " names " + String.join(", ", missing)
                    + ", but in " + place.environment() + " no value is set or the component was not given it");
        }
        if (environments.hosts(place.id()).isEmpty()) {
            throw Refusal.conflict(place.component() + " has no hosts in " + place.environment());
        }
    }

    /** What neither time nor a decision brings about is told at once, not discovered at the gate. */
    private void refuseUnmet(Place place, long id, Optional<Person> person) {
        Verdict verdict = gates.judge(places.atGate(place, mapper.byId(id).orElseThrow()));
        Optional<Judgement> unmet = verdict.unmet().stream().findFirst();
        if (person.isPresent() && unmet.isPresent()) {
            throw Refusal.conflict(place.environment() + " does not take it: " + unmet.get().name() + ". " + unmet.get().sentence());
        }
    }

    private DeploymentState state(long id, Place place, Versions.Sealed version, PipelineFile.Recipe recipe, boolean automatic) {
        List<HostState> hosts = environments.hosts(place.id()).stream().map(host -> HostState.ahead(host.name())).toList();
        return new DeploymentState(id, version.number(), version.line(), version.order(), Kind.PROMOTION, automatic, DeploymentStatus.WAITING, hosts,
                DeploymentState.OnFailure.valueOf(recipe.onFailure().name()),
                recipe.removal().isEmpty() ? DeploymentState.WayBack.NONE : DeploymentState.WayBack.REMOVAL, Optional.empty());
    }

    DeploymentRow deployment(long id) {
        return mapper.byId(id).orElseThrow(() -> Refusal.notFound("there is no deployment " + id));
    }

    /** A person says yes or no to exactly what they saw. */
    void rule(long id, Person person, boolean yes, String comment, Optional<String> seen) {
        DeploymentRow row = deployment(id);
        String kept = comment.strip();
        places.change(row.placeId(), place -> {
            DeploymentRow now = deployment(id);
            if (!now.status().equals("waiting")) {
                throw Refusal.conflict("deployment " + id + " no longer waits for a decision: it is " + now.status()
                        + Optional.ofNullable(now.reason()).map(why -> " (" + why + ")").orElse(""));
            }
            Gates.AtGate at = places.atGate(place, now);
            gates.refusal(at, person.name()).ifPresent(why -> {
                throw Refusal.notAllowed(why);
            });
            if (kept.isEmpty() && (gates.needsComment(at) || !yes)) {
                throw Refusal.invalid("/comment", yes ? place.environment() + " wants a comment with every decision" : "say why it is rejected");
            }
            if (seen.filter(subject -> !subject.equals(gates.subject(at))).isPresent()) {
                throw Refusal.conflict("what would be deployed has changed since you looked at it: look again, then decide");
            }
            gates.rule(at, person.id(), yes, kept.length() > 2000 ? kept.substring(0, 2000) : kept);
            around.audit().record(AuditTrail.Entry.of(person.name(), yes ? "approved" : "rejected", place.component() + " " + at.version().number())
                    .in(place.environment()).because(kept).with("deployment", Long.toString(id)).with("subject", gates.subject(at)));
            return Optional.empty();
        });
    }

    void cancel(long id, Person person) {
        DeploymentRow row = deployment(id);
        places.require(row.placeId(), place -> {
            around.audit().record(AuditTrail.Entry.of(person.name(), "deployment cancel asked", place.component()).in(place.environment())
                    .with("deployment", Long.toString(id)));
            return Optional.of(new PlaceEvent.CancelAsked(id, person.name()));
        }, reason -> Refusal.conflict("it cannot be cancelled: deployment " + id + " is " + deployment(id).status()));
    }
}

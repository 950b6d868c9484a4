package dev.paseo.service.retirement;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.retirement.Retirable;
import dev.paseo.core.retirement.Retirement;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.Removals;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Takes something out of use where nothing hinders it, and brings it back. */
@Component
class Retiring {

    /** @param environment of a place */
    record Subject(Retirable what, String name, Optional<String> environment) {

        String words() {
            return name + environment.map(in -> " in " + in).orElse("");
        }
    }

    private final RetirementMapper mapper;
    private final Components components;
    private final Environments environments;
    private final Lookups lookups;
    private final Changes changes;

    /** What is live, and how it is removed. */
    @Component("retiringLookups")
    record Lookups(Versions versions, Removals removals) {}

    Retiring(RetirementMapper mapper, Components components, Environments environments, Lookups lookups,
            Changes changes) {
        this.mapper = mapper;
        this.components = components;
        this.environments = environments;
        this.lookups = lookups;
        this.changes = changes;
    }

    List<RetirementMapper.RetiredRow> retired() {
        return mapper.retired();
    }

    Retirement.Facts facts(Subject subject) {
        return switch (subject.what()) {
            case COMPONENT -> component(subject.name());
            case PLACE -> place(environments.place(subject.name(), subject.environment().orElseThrow()));
            case HOST -> host(subject.name());
            case AGENT -> agent(subject.name());
            case ENVIRONMENT -> environment(environments.named(subject.name()));
            case PREVIEW_TEMPLATE -> new Retirement.Facts(List.of(), mapper.previews(template(subject.name())).stream()
                    .map(branch -> "there is a preview of " + branch + ": take it away first").toList(), List.of(),
                    List.of("no branch gets a preview of it any more"));
        };
    }

    private Retirement.Facts component(String name) {
        Components.RegisteredComponent component = components.named(name);
        List<String> ends = new ArrayList<>(List.of("no push, tag, clock or upload starts anything of it any more"));
        mapper.startedBy(component.name()).forEach(other -> ends.add(other + " no longer starts upon it"));
        return new Retirement.Facts(
                Stream.concat(mapper.runs(component.id()).stream(), mapper.deploymentsOf(component.id()).stream())
                        .toList(),
                List.of(),
                live(mapper.live(component.id(), null)), ends);
    }

    private Retirement.Facts place(Environments.Place place) {
        return new Retirement.Facts(mapper.deploymentsInto(place.id()), List.of(), live(mapper.live(null, place.id())),
                List.of("nothing is deployed there any more; a walk that comes to it stays, and says so"));
    }

    private List<Retirement.Live> live(List<RetirementMapper.LiveRow> rows) {
        return rows.stream().map(row -> new Retirement.Live(row.component(), row.environment(), row.version(),
                environments.hosts(row.placeId()).stream().map(Environments.PlaceHost::name).toList(),
                lookups.versions().byId(row.versionId()).recipe().filter(recipe -> !recipe.parts().removal().isEmpty())
                        .isPresent()))
                .toList();
    }

    private Retirement.Facts host(String name) {
        hostNamed(name);
        List<String> needs = new ArrayList<>(mapper.placesOf(name).stream()
                .map(where -> where + ": give the place other hosts first, or retire it").toList());
        mapper.agentsOf(name).forEach(agent -> needs.add("the agent " + agent + " works on it: retire that first"));
        return new Retirement.Facts(List.of(), needs, List.of(), List.of());
    }

    private long hostNamed(String name) {
        return mapper.host(name).orElseThrow(() -> Refusal.notFound("There is no host " + name));
    }

    private RetirementMapper.AgentRow agentNamed(String name) {
        return mapper.agent(name).orElseThrow(() -> Refusal.notFound("There is no agent " + name));
    }

    private long template(String name) {
        return mapper.template(name).orElseThrow(() -> Refusal.notFound("There is no preview template " + name));
    }

    private Retirement.Facts agent(String name) {
        RetirementMapper.AgentRow row = agentNamed(name);
        List<String> needs = new ArrayList<>(mapper.reached(row.id()));
        Optional.ofNullable(row.host()).ifPresent(host -> mapper.placesOf(host)
                .forEach(where -> needs.add(where + ", on its host " + host + ": give the place another host first")));
        return new Retirement.Facts(
                row.working() == 0 ? List.of()
                        : List.of("it works on " + (row.working() == 1 ? "1 thing" : row.working() + " things")),
                needs, List.of(),
                List.of("its token is good for nothing any more"));
    }

    private Retirement.Facts environment(Environments.Environment known) {
        List<String> needs = new ArrayList<>(mapper.placesIn(known.id()).stream()
                .map(component -> component + " has a place there: retire that first").toList());
        environments.all().stream().filter(other -> other.rules().followed().contains(known.name()))
                .forEach(other -> needs.add(other.name() + " follows it: change that in the environments file first"));
        return new Retirement.Facts(List.of(), needs, List.of(),
                List.of("a route that names it stays there, and says so"));
    }

    /**
     * What follows from it is what {@link #facts} said: where that has changed meanwhile, and hinders it now, nothing
     * is done.
     */
    void retire(Subject subject, String reason, boolean remove, Person by) {
        changes.run(() -> {
            Retirement.Facts facts = facts(subject);
            List<String> hinders = Retirement.hinders(facts, remove);
            if (!hinders.isEmpty()) {
                throw Refusal.conflict(subject.words() + " is not retired: " + String.join("; ", hinders));
            }
            if (remove) {
                places(subject).forEach(row -> {
                    Permission.require(by, Action.ROLL_BACK, "remove " + row.component() + " from " + row.environment(),
                            Optional.of(row.component()), Optional.of(row.environment()));
                    lookups.removals().begin(row.placeId(), subject.words() + " is retired");
                });
            }
            mark(subject, Optional.of(changes.now()));
            changes.record(AuditTrail.Entry.of(by.name(), words(subject.what()) + " retired", subject.name())
                    .in(subject.environment().orElse("")).because(reason)
                    .with("follows", String.join("; ", Retirement.follows(facts, remove))));
            changes.publish("environment", "all");
        });
    }

    /** What is live of it; to remove it takes who may take back what is live there. */
    private List<RetirementMapper.LiveRow> places(Subject subject) {
        return switch (subject.what()) {
            case COMPONENT -> mapper.live(components.named(subject.name()).id(), null);
            case PLACE -> mapper.live(null,
                    environments.place(subject.name(), subject.environment().orElseThrow()).id());
            case HOST, AGENT, ENVIRONMENT, PREVIEW_TEMPLATE -> List.of();
        };
    }

    void bringBack(Subject subject, Person by) {
        if (subject.what() == Retirable.AGENT) {
            throw Refusal.conflict("An agent's token does not come back: enrol it again under the same name");
        }
        changes.run(() -> {
            mark(subject, Optional.empty());
            changes.record(AuditTrail.Entry.of(by.name(), words(subject.what()) + " brought back", subject.name())
                    .in(subject.environment().orElse("")));
            changes.publish("environment", "all");
        });
        if (subject.what() == Retirable.COMPONENT) {
            components.refreshTriggers();
        }
    }

    private void mark(Subject subject, Optional<Instant> at) {
        Instant when = at.orElse(null);
        switch (subject.what()) {
            case COMPONENT -> {
                long id = components.named(subject.name()).id();
                mapper.componentRetired(id, when);
                mapper.dropTriggers(id);
            }
            case PLACE -> mapper
                    .placeRetired(environments.place(subject.name(), subject.environment().orElseThrow()).id(), when);
            case HOST -> mapper.hostRetired(hostNamed(subject.name()), when);
            case AGENT -> mapper.agentRetired(agentNamed(subject.name()).id(), when);
            case ENVIRONMENT -> mapper.environmentRetired(environments.named(subject.name()).id(), when);
            case PREVIEW_TEMPLATE -> mapper.environmentRetired(template(subject.name()), when);
        }
    }

    static String words(Retirable what) {
        return what.name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
    }
}

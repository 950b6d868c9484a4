package dev.paseo.service.retirement;

import dev.paseo.core.retirement.Retirement;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.retirement.Retiring.Subject;
import dev.paseo.service.version.Versions;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What stands in the way of retiring something, and what follows from it. */
@Component
class RetirementFacts {

    private final RetirementMapper mapper;
    private final Components components;
    private final Environments environments;
    private final Versions versions;

    RetirementFacts(RetirementMapper mapper, Components components, Environments environments, Versions versions) {
        this.mapper = mapper;
        this.components = components;
        this.environments = environments;
        this.versions = versions;
    }

    /** @throws Refusal where there is nothing of this name */
    long id(Subject subject) {
        return switch (subject.what()) {
            case COMPONENT -> components.named(subject.name()).id();
            case PLACE -> environments.place(subject.name(), subject.environment().orElseThrow()).id();
            case HOST -> hostNamed(subject.name());
            case AGENT -> agentNamed(subject.name()).id();
            case ENVIRONMENT -> environments.named(subject.name()).id();
            case PREVIEW_TEMPLATE -> template(subject.name());
        };
    }

    Retirement.Facts of(Subject subject) {
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
                versions.byId(row.versionId()).recipe().filter(recipe -> !recipe.parts().removal().isEmpty())
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

    /** What is live of it; to remove it takes who may take back what is live there. */
    List<RetirementMapper.LiveRow> live(Subject subject) {
        return switch (subject.what()) {
            case COMPONENT -> mapper.live(id(subject), null);
            case PLACE -> mapper.live(null, id(subject));
            case HOST, AGENT, ENVIRONMENT, PREVIEW_TEMPLATE -> List.of();
        };
    }
}

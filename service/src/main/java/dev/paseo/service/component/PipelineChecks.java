package dev.paseo.service.component;

import dev.paseo.core.secret.Lack;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.check.FileChecks;
import dev.paseo.language.check.Surroundings;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.secret.Secrets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * Checks a pipeline file against what is here: components, environments, agents, grants. What is said of it is the
 * language's to decide.
 */
@Component
public class PipelineChecks {

    private static final TypeReference<Set<String>> WORDS = new TypeReference<>() {};

    /**
     * What is wrong with a text.
     *
     * @param warnings what keeps nothing from running, but is likely to be meant otherwise
     * @param text     as it was read, with its pieces
     */
    public record Checked(Optional<PipelineFile> file, List<Problem> problems, List<Problem> warnings,
            PipelineText text) {}

    /** The rules of environments, by the environment they follow, as whoever keeps them tells. */
    public interface Followed {

        /** Each environment to what it follows, in their order. */
        Map<String, Surroundings.Follows> environments();
    }

    private final Components components;
    private final ComponentMapper mapper;
    private final Secrets secrets;
    private final Json json;
    private final Followed followed;
    private final PipelineFiles files;

    PipelineChecks(Components components, ComponentMapper mapper, Secrets secrets, Json json, Followed followed,
            PipelineFiles files) {
        this.files = files;
        this.components = components;
        this.mapper = mapper;
        this.secrets = secrets;
        this.json = json;
        this.followed = followed;
    }

    /** Checks a text as the file of this component. */
    public Checked check(RegisteredComponent component, String text) {
        return check(component, files.text(component.id(), component.name(), text));
    }

    /** Checks a file that was read already. */
    public Checked check(RegisteredComponent component, FileInForce file) {
        return check(component, files.whole(file.id()));
    }

    /** Checks a text that was read with pieces of the caller's choice. */
    public Checked check(RegisteredComponent component, PipelineText text) {
        Reading<PipelineFile> reading = text.reading();
        List<Problem> problems = new ArrayList<>(reading.problems());
        List<Problem> warnings = new ArrayList<>(reading.warnings());
        reading.value().ifPresent(file -> {
            SourcePositions places = text.places();
            if (!components.names(component).contains(file.component())) {
                problems.add(places.problem("component",
                        "says " + file.component() + ", but this repository is registered as " + component.name()));
            } else if (!file.component().equals(component.name())) {
                warnings.add(places.problem("component",
                        "says " + file.component() + ", as it was called; it is " + component.name() + " now"));
            }
            components.cycle(component, file, places).ifPresent(problems::add);
            FileChecks.Found found = around(component, file, places);
            problems.addAll(found.problems());
            warnings.addAll(found.warnings());
        });
        return new Checked(reading.value(), problems.stream().sorted().toList(), warnings.stream().sorted().toList(),
                text);
    }

    /** What of a file that can be read does not agree with what is here. */
    private FileChecks.Found around(RegisteredComponent component, PipelineFile file, SourcePositions places) {
        List<String> ofStages = file.stages().stream().flatMap(stage -> stage.secrets().stream()).distinct().toList();
        Set<String> lacking = secrets.lacks(ofStages, component.id(), 0).stream().map(Lack::name)
                .collect(Collectors.toSet());
        return around(component.name(), file, places,
                new Own(component.repository().isPresent(),
                        mapper.sources(component.id()).stream().map(ComponentMapper.SourceRow::name)
                                .collect(Collectors.toSet()),
                        new HashSet<>(secrets.given(component.id())),
                        ofStages.stream().filter(name -> !lacking.contains(name)).collect(Collectors.toSet()),
                        components.heads(component.id()).keySet()));
    }

    /** What a component has, or would be given: a repository, sources, secrets, those with a value, branches. */
    public record Own(boolean repository, Set<String> opened, Set<String> given, Set<String> valued,
            Set<String> branches) {}

    public FileChecks.Found around(String component, PipelineFile file, SourcePositions places, Own own) {
        Map<String, String> former = new HashMap<>();
        mapper.allFormerNames().forEach(row -> former.put(row.name(), row.component()));
        return FileChecks.of(file, places,
                new Surroundings(component, own.repository(),
                        components.all().stream().map(RegisteredComponent::name).toList(),
                        followed.environments(),
                        mapper.stageOffers().stream().map(offers -> json.read(offers, WORDS)).toList(), routes(file),
                        own.opened(), own.given(), own.valued(), own.branches(), former));
    }

    /** The routes of those components alone that the file waits for, or takes from, where they are live somewhere. */
    private Map<String, Set<String>> routes(PipelineFile file) {
        Stream<String> waitsFor = file.starts().stream()
                .flatMap(start -> start instanceof Trigger.Live(String name, String environment)
                        ? Stream.of(name) : Stream.of());
        Stream<String> takesFrom = file.stages().stream().flatMap(stage -> stage.take().stream())
                .filter(take -> take.version() instanceof PipelineFile.Take.Which.LiveIn).map(PipelineFile.Take::from);
        Map<String, Set<String>> routes = new LinkedHashMap<>();
        Stream.concat(waitsFor, takesFrom).map(components::nameNow).distinct().forEach(name -> mapper.mainFile(name)
                .flatMap(id -> components.file(id).file()).ifPresent(other -> routes.put(name,
                        other.route().stream().flatMap(step -> step.keySet().stream()).collect(Collectors.toSet()))));
        return routes;
    }
}

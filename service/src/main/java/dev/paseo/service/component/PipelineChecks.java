package dev.paseo.service.component;

import dev.paseo.language.NearestName;
import dev.paseo.language.Places;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFile.Start;
import dev.paseo.language.file.PipelineFile.Take;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.secret.Secrets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Checks a pipeline file against what is here: components, environments, grants. What the file alone shows is the language's to find. */
@Component
public class PipelineChecks {

    /**
     * What is wrong with a text.
     *
     * @param warnings what keeps nothing from running, but is likely to be meant otherwise
     */
    public record Checked(Optional<PipelineFile> file, List<Problem> problems, List<Problem> warnings) {}

    private final Components components;
    private final ComponentMapper mapper;
    private final Secrets secrets;

    PipelineChecks(Components components, ComponentMapper mapper, Secrets secrets) {
        this.components = components;
        this.mapper = mapper;
        this.secrets = secrets;
    }

    /** Checks a text as the file of this component. */
    public Checked check(Registered component, String text) {
        Reading<PipelineFile> reading = PipelineFileReader.read(text);
        List<Problem> problems = new ArrayList<>(reading.problems());
        List<Problem> warnings = new ArrayList<>(reading.warnings());
        reading.value().ifPresent(file -> {
            Places places = Places.of(text);
            if (!file.component().equals(component.name())) {
                problems.add(places.problem("component", "says " + file.component() + ", but this repository is registered as " + component.name()));
            }
            starts(file, places, problems);
            components.circle(component, file, text).ifPresent(problems::add);
            takes(component, file, places, problems);
            route(file, places, problems);
            grants(component, file, places, warnings);
        });
        return new Checked(reading.value(), problems.stream().sorted().toList(), warnings.stream().sorted().toList());
    }

    private void known(String path, String name, Places places, List<Problem> problems) {
        List<String> all = components.all().stream().map(Registered::name).toList();
        if (!all.contains(name)) {
            problems.add(places.problem(path, "there is no component " + name + NearestName.hint(name, all)));
        }
    }

    private void starts(PipelineFile file, Places places, List<Problem> problems) {
        for (int at = 0; at < file.starts().size(); at++) {
            String path = "starts[" + at + "]";
            switch (file.starts().get(at)) {
                case Start.Upstream upstream -> upstream.components().forEach(name -> known(path, name, places, problems));
                case Start.Live(String name, String environment) -> {
                    known(path, name, places, problems);
                    environment(path, environment, places, problems);
                }
                case Start.Push push -> { }
                case Start.Tag tag -> { }
                case Start.Clock clock -> { }
                case Start.Arrival arrival -> { }
                case Start.Preview preview -> { }
            }
        }
    }

    private void takes(Registered component, PipelineFile file, Places places, List<Problem> problems) {
        Set<String> opened = new HashSet<>(mapper.sources(component.id()).stream().map(ComponentMapper.SourceRow::name).toList());
        for (PipelineFile.Stage stage : file.stages()) {
            for (int at = 0; at < stage.take().size(); at++) {
                Take take = stage.take().get(at);
                String path = "stages." + stage.name() + ".take[" + at + "].from";
                int before = problems.size();
                known(path, take.from(), places, problems);
                if (problems.size() == before && !opened.contains(take.from())) {
                    problems.add(places.problem(path, take.from() + " is not opened to " + component.name() + "; somebody who registers components opens it"));
                }
                if (take.version() instanceof Take.Which.LiveIn(String environment)) {
                    environment("stages." + stage.name() + ".take[" + at + "].version", environment, places, problems);
                }
            }
        }
    }

    private void environment(String path, String name, Places places, List<Problem> problems) {
        List<String> all = mapper.environments();
        if (!all.contains(name)) {
            problems.add(places.problem(path, "there is no environment " + name + NearestName.hint(name, all)));
        }
    }

    private void route(PipelineFile file, Places places, List<Problem> problems) {
        Map<Integer, Set<String>> steps = new java.util.TreeMap<>();
        for (int at = 0; at < file.route().size(); at++) {
            steps.put(at, file.route().get(at).keySet());
        }
        steps.forEach((at, names) -> names.forEach(name -> environment("route[" + at + "]", name, places, problems)));
    }

    private void grants(Registered component, PipelineFile file, Places places, List<Problem> warnings) {
        for (PipelineFile.Stage stage : file.stages()) {
            secrets.missing(stage.secrets(), component.id(), 0).forEach(name -> warnings.add(places.problem("stages." + stage.name() + ".secrets",
                    name + " was not given to " + component.name() + ", or has no value: a run on a trusted branch would be refused")));
        }
    }
}

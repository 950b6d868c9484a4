package dev.paseo.language.check;

import dev.paseo.core.secret.Lack;
import dev.paseo.core.trigger.Trigger.RunEnd;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.NearestName;
import dev.paseo.language.Problem;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.file.PipelineFile.Take;
import dev.paseo.language.file.PipelineFile;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * What of a pipeline file does not agree with what is around it: problems keep it from being committed here, warnings
 * are likely to be meant otherwise.
 */
public final class FileChecks {

    /** What was found. */
    public record Found(List<Problem> problems, List<Problem> warnings) {}

    private static final Set<RunEnd> WITHOUT_VERSION = EnumSet.of(RunEnd.FAILED, RunEnd.CANCELLED);

    private final PipelineFile file;
    private final SourcePositions places;
    private final Surroundings around;
    private final List<Problem> problems = new ArrayList<>();
    private final List<Problem> warnings = new ArrayList<>();

    private FileChecks(PipelineFile file, SourcePositions places, Surroundings around) {
        this.file = file;
        this.places = places;
        this.around = around;
    }

    public static Found of(PipelineFile file, SourcePositions places, Surroundings around) {
        FileChecks checks = new FileChecks(file, places, around);
        checks.starts();
        file.stages().forEach(checks::stage);
        checks.route();
        checks.tree();
        checks.secrets();
        return new Found(checks.problems.stream().sorted().toList(), checks.warnings.stream().sorted().toList());
    }

    private void problem(String path, String message) {
        problems.add(places.problem(path, message));
    }

    private void warning(String path, String message) {
        warnings.add(places.problem(path, message));
    }

    private boolean known(String path, String name) {
        boolean known = around.components().contains(around.now(name));
        if (!known) {
            problem(path, "there is no component " + name + NearestName.hint(name, around.components()));
        } else if (!around.now(name).equals(name)) {
            warning(path, name + " is called " + around.now(name) + " now");
        }
        return known;
    }

    private boolean environment(String path, String name) {
        boolean known = around.environments().containsKey(name);
        if (!known) {
            problem(path, "there is no environment " + name + NearestName.hint(name, around.environments().keySet()));
        }
        return known;
    }

    private void starts() {
        if (file.starts().isEmpty()) {
            warning("", "names no triggers: it starts when a person asks, and not by itself");
        }
        for (int at = 0; at < file.starts().size(); at++) {
            String path = "starts[" + at + "]";
            switch (file.starts().get(at)) {
                case Trigger.Upstream upstream -> upstream.components().forEach(name -> known(path, name));
                case Trigger.Live(String name, String environment) -> {
                    if (known(path, name) & environment(path, environment)) {
                        walksTo(path, name, environment, "this starts nothing");
                    }
                }
                case Trigger.Push(var branches, var paths) -> branches
                        .forEach(branch -> there(path, branch.toString()));
                case Trigger.Preview(var branches) -> branches.forEach(branch -> there(path, branch.toString()));
                case Trigger.Tag tag -> {}
                case Trigger.Clock clock -> {}
                case Trigger.Arrival arrival -> {}
            }
        }
    }

    /** A pattern may be of branches to come; a plain name is one that should be there. */
    private void there(String path, String branch) {
        if (!around.branches().isEmpty() && !branch.contains("*") && !branch.contains("?")
                && !around.branches().contains(branch)) {
            warning(path, "there is no branch " + branch + NearestName.hint(branch, around.branches()));
        }
    }

    private void tree() {
        if (!around.repository()) {
            file.tree().ifPresent(folder -> problem("tree",
                    around.component() + " has no repository, so there is no commit to take " + folder + " from"));
        } else if (file.isOfTree()) {
            file.deployment().ifPresent(recipe -> recipe.artifacts().stream()
                    .filter(name -> !name.equals(PipelineFile.TREE)).findFirst()
                    .ifPresent(
                            name -> problem("deployment.artifacts", "names " + name + ", but without stages the only "
                                    + "artifact is " + PipelineFile.TREE + ", the commit's files")));
        }
    }

    private void walksTo(String path, String component, String environment, String so) {
        if (around.route(component).filter(route -> !route.contains(environment)).isPresent()) {
            warning(path,
                    component + " does not walk to " + environment + ": " + so + ", unless a person brings it there");
        }
    }

    private void stage(PipelineFile.Stage stage) {
        String path = "stages." + stage.name();
        for (int at = 0; at < stage.take().size(); at++) {
            take(path + ".take[" + at + "]", stage.take().get(at));
        }
        wants(path + ".wants", stage.wants());
    }

    private void take(String path, Take take) {
        if (!known(path + ".from", take.from())) {
            return;
        }
        if (!around.opened().contains(around.now(take.from()))) {
            problem(path + ".from", take.from() + " is not opened to " + around.component() + ": paseo component open "
                    + around.component() + " --source " + take.from());
        }
        switch (take.version()) {
            case Take.Which.LiveIn(String environment) -> {
                if (environment(path + ".version", environment)) {
                    walksTo(path + ".version", take.from(), environment, "there is nothing to take");
                }
            }
            case Take.Which.Upstream upstream -> {
                List<RunEnd> outcomes = file.starts().stream()
                        .flatMap(start -> start instanceof Trigger.Upstream of && of.components().contains(take.from())
                                ? of.outcomes().stream() : Stream.of())
                        .toList();
                if (!outcomes.isEmpty() && WITHOUT_VERSION.containsAll(outcomes)) {
                    warning(path, "only failed or cancelled runs of " + take.from()
                            + " start it, and they make nothing: what is taken is what was used last, or the newest");
                }
            }
            case Take.Which.Newest newest -> {}
            case Take.Which.Matching matching -> {}
        }
    }

    private void wants(String path, List<String> wants) {
        Set<String> all = new HashSet<>();
        around.offers().forEach(all::addAll);
        List<String> unknown = wants.stream().filter(want -> !all.contains(want)).toList();
        unknown.forEach(want -> warning(path, "no agent offers " + want + NearestName.hint(want, all)));
        if (unknown.isEmpty() && !wants.isEmpty()
                && around.offers().stream().noneMatch(offers -> offers.containsAll(wants))) {
            warning(path, "no agent offers all of " + String.join(", ", wants));
        }
    }

    private void route() {
        Set<String> before = new HashSet<>();
        for (int at = 0; at < file.route().size(); at++) {
            String path = "route[" + at + "]";
            for (String name : file.route().get(at).keySet()) {
                if (environment(path, name)) {
                    Surroundings.Follows follows = around.environments().get(name);
                    List<String> skipped = follows.environments().stream()
                            .filter(followed -> !before.contains(followed)).toList();
                    if (!skipped.isEmpty() && !(follows.any() && skipped.size() < follows.environments().size())) {
                        warning(path, name + " follows " + String.join(", ", skipped) + ", which "
                                + (skipped.size() == 1 ? "is" : "are")
                                + " not before it on this route: a version is not taken there unless a person has "
                                + "brought it to "
                                + skipped.getFirst() + " before");
                    }
                }
            }
            before.addAll(file.route().get(at).keySet());
        }
    }

    private void secrets() {
        Set<String> named = new HashSet<>();
        for (PipelineFile.Stage stage : file.stages()) {
            stage.secrets().forEach(name -> secret("stages." + stage.name() + ".secrets", name, true));
            named.addAll(stage.secrets());
        }
        file.deployment().map(recipe -> recipe.secrets()).orElse(List.of()).forEach(name -> {
            secret("deployment.secrets", name, false);
            named.add(name);
        });
        around.given().stream().filter(name -> !named.contains(name)).sorted().forEach(name -> warning("",
                name + " was given to " + around.component() + ", but nothing here names it" + nearest(name, named)));
    }

    private void secret(String path, String name, boolean needsValue) {
        if (!around.given().contains(name)) {
            warning(path, new Lack(name, false).sentence(around.component(), Optional.empty())
                    + nearest(name, around.given()));
        } else if (needsValue && !around.valued().contains(name)) {
            warning(path, new Lack(name, true).sentence(around.component(), Optional.empty()));
        }
    }

    private static String nearest(String name, Set<String> names) {
        return NearestName.of(name, names).map(near -> "; did you mean " + near + "?").orElse("");
    }
}

package dev.paseo.language.check;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Recipe;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Scripts and files that a pipeline file names and that do not lie beside it. */
public final class BesideChecks {

    /** A command that begins with a script of the repository. */
    private static final Pattern SCRIPT = Pattern.compile(
            "^\\s*(?:sh |bash )?(?:\\./)?([A-Za-z0-9_-]+(?:/[A-Za-z0-9._-]+)*\\.sh|\\./[A-Za-z0-9._/-]+)(?:\\s.*)?$",
            Pattern.DOTALL);

    private BesideChecks() {}

    /** @param files paths from the folder that the pipeline file lies in */
    public static List<Problem> of(PipelineFile file, SourcePositions places, List<String> files) {
        Set<String> there = Set.copyOf(files);
        List<Problem> warnings = new ArrayList<>();
        for (PipelineFile.Stage stage : file.stages()) {
            boolean takes = !stage.take().isEmpty() || !stage.order().after().isEmpty()
                    || !stage.order().afterAny().isEmpty();
            stage.steps().stream().flatMap(step -> script(step.command()).stream())
                    .filter(script -> !takes && !there.contains(script))
                    .forEach(script -> warnings.add(places.problem("stages." + stage.name() + ".steps",
                            "there is no " + script + " beside this file")));
        }
        file.deployment().ifPresent(recipe -> recipe(recipe, places, files, warnings));
        return warnings;
    }

    private static void recipe(Recipe recipe, SourcePositions places, List<String> files, List<Problem> warnings) {
        List<BranchPattern> brings = recipe.bring().stream().map(BranchPattern::new).toList();
        brings.stream().filter(pattern -> files.stream().noneMatch(pattern::matches)).forEach(pattern -> warnings
                .add(places.problem("deployment.bring", pattern + " matches no file beside this one")));
        Recipe.Parts parts = recipe.parts();
        Stream.of(parts.onceBefore(), parts.onEachHost(), parts.onceAfter(), parts.traffic(), parts.removal())
                .flatMap(List::stream)
                .flatMap(command -> script(command.command()).stream()).distinct()
                .filter(script -> files.stream().filter(script::equals)
                        .noneMatch(path -> brings.stream().anyMatch(pattern -> pattern.matches(path))))
                .forEach(script -> warnings.add(places.problem("deployment",
                        files.contains(script) ? script + " is not brought along: no pattern of bring matches it"
                                : "there is no " + script + " beside this file")));
    }

    private static Optional<String> script(String command) {
        Matcher matcher = SCRIPT.matcher(command);
        return matcher.matches() ? Optional.of(matcher.group(1).replaceFirst("^\\./", "")) : Optional.empty();
    }
}

package dev.paseo.service.component;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Route;
import dev.paseo.language.Problem;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Variants;
import dev.paseo.language.piece.Used;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.pipeline.SeenText;
import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Pipeline files: read, checked, drafted. */
@RestController
@RequestMapping("/api/v1")
class PipelineController {

    private static final int MOST_PATHS = 5000;

    /**
     * The file of a branch as it is in force.
     *
     * @param expanded  with every piece in its place, where it uses any and has no problems
     * @param pieces    that it uses, as they were found
     * @param ownBranch where the reader commits instead, where the branch is trusted and they may not commit to it
     */
    record PipelineView(String branch, String commit, String path, String text, List<Problem> problems,
            Optional<String> expanded, List<Used> pieces, Optional<String> ownBranch) {}

    /** A text of the file, and the commit at which it was first seen. */
    record PipelineVersionView(String commit, String text, int problems, Instant readAt) {}

    record CheckRequest(@Size(max = 1_000_000) String text) {}

    /** A stage as the graph shows it. */
    record PlannedStageView(String name, List<String> variants, List<String> after, List<String> afterAny,
            List<String> ifFailed, boolean mayFail,
            Optional<String> wantedIf, List<String> wants, List<String> keeps) {}

    /** What a text says, where nothing is wrong with it. */
    record PlanView(List<String> pushes, List<PlannedStageView> stages, List<Map<String, String>> route,
            Map<String, AskView> asks) {}

    record AskView(String question, String kind, String standard, List<String> of) {}

    /**
     * What was found in a text.
     *
     * @param expanded with every piece in its place, where it uses any
     */
    record CheckView(List<Problem> problems, List<Problem> warnings, Optional<PlanView> plan,
            Optional<String> expanded, List<Used> pieces) {}

    private final Components components;
    private final PipelineChecks checks;
    private final PipelineFiles files;

    PipelineController(Components components, PipelineChecks checks, PipelineFiles files) {
        this.files = files;
        this.components = components;
        this.checks = checks;
    }

    private RegisteredComponent look(Person person, String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return components.named(name);
    }

    /** The JSON Schema (2020-12) of pipeline files. */
    @GetMapping(value = "/pipeline-schema", produces = "application/schema+json")
    String schema() throws IOException {
        try (InputStream in = Objects
                .requireNonNull(PipelineFile.class.getResourceAsStream("/dev/paseo/language/paseo.schema.json"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** The pipeline file that is in force on a branch, with its problems. */
    @GetMapping("/components/{name}/pipeline")
    PipelineView inForce(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam Optional<String> branch) {
        RegisteredComponent component = look(person, name);
        String wanted = branch.orElse(component.mainBranch());
        String commit = Optional.ofNullable(components.heads(component.id()).get(wanted))
                .orElseThrow(() -> Refusal.notFound(name + " has no branch " + wanted));
        FileInForce file = components.readFile(component, commit);
        return new PipelineView(wanted, commit, component.filePath(), files.written(file.id()), file.problems(),
                expanded(file.used(), () -> files.whole(file.id()).expanded()), file.used(),
                components.rules(component.id()).trusts(wanted)
                        && !person.may(Action.EDIT_TRUSTED, Optional.of(name), Optional.empty())
                                ? Optional.of(Components.ownBranch(person)) : Optional.empty());
    }

    /** The versions of a pipeline file that the service keeps, the newest first. */
    @GetMapping("/components/{name}/pipeline/history")
    List<PipelineVersionView> history(@AuthenticationPrincipal Person person, @PathVariable String name) {
        List<SeenText> rows = files.history(look(person, name).id(), 200);
        Map<String, SeenText> first = new LinkedHashMap<>();
        // The newest first; of the commits with one text the oldest stays.
        rows.forEach(row -> first.put(row.text(), row));
        return first.values().stream()
                .map(row -> new PipelineVersionView(row.commitId(), row.text(), row.problems(), row.readAt())).toList();
    }

    /** Checks a text as the file of this component; nothing is kept. */
    @PostMapping(value = "/components/{name}/pipeline/check", consumes = MediaType.APPLICATION_JSON_VALUE)
    CheckView check(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody CheckRequest request) {
        PipelineChecks.Checked checked = checks.check(look(person, name), request.text());
        return new CheckView(checked.problems(), checked.warnings(), checked.file().map(PipelineController::plan),
                expanded(checked.text().used(), checked.text()::expanded), checked.text().used());
    }

    private static Optional<String> expanded(List<Used> used, Supplier<String> text) {
        return used.isEmpty() ? Optional.empty() : Optional.of(text.get());
    }

    private static PlanView plan(PipelineFile file) {
        Map<String, AskView> asks = new LinkedHashMap<>();
        file.asks().forEach((name, ask) -> asks.put(name, new AskView(ask.question(),
                ask.kind().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'), ask.standard(), ask.of())));
        return new PlanView(file.pushes(), file.stages().stream().map(PipelineController::planned).toList(),
                file.route().stream().map(PipelineController::words).toList(), asks);
    }

    private static Map<String, String> words(Map<String, Route.Mode> step) {
        Map<String, String> words = new LinkedHashMap<>();
        step.forEach((environment, entry) -> words.put(environment,
                entry.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-')));
        return words;
    }

    private static PlannedStageView planned(PipelineFile.Stage stage) {
        return new PlannedStageView(stage.name(), stage.variants().stream().map(Variants::name).toList(),
                stage.order().after(), stage.order().afterAny(),
                stage.order().ifFailed(), stage.conditions().mayFail(), stage.conditions().wantedIf(), stage.wants(),
                List.copyOf(stage.keep().keySet()));
    }
}

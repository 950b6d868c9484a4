package dev.paseo.service.draft;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.language.draft.Draft;
import dev.paseo.language.draft.LikeAnother;
import dev.paseo.language.draft.Question;
import dev.paseo.language.draft.WrongAnswer;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceAccess;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Drafts pipeline files of repositories that are not components yet. */
@RestController
@RequestMapping("/api/v1")
class DraftController {

    private static final int MOST_PATHS = 20_000;

    /**
     * A repository to draft from.
     *
     * @param file    where its pipeline file is, or will be; {@code paseo.yaml} if absent
     * @param answers to questions of a draft before, by their names
     * @param like    a component whose pipeline file is the beginning; then nothing is asked
     */
    record DraftRequest(String component, String repository, Optional<String> branch, Optional<String> file,
            Optional<SourceAccess> credentials, Optional<Map<String, String>> answers, Optional<String> like) {}

    /** What is asked; {@code of} is what may be answered, and empty where it is a text. */
    record QuestionView(String name, String question, List<String> of, String standard, String answer) {}

    /** A drafted text; {@code free} is another name where the wanted one is taken. */
    record DraftView(String branch, String commit, boolean there, String text, List<QuestionView> asked,
            Optional<String> free) {}

    private final Components components;
    private final Environments environments;
    private final Mirrors mirrors;
    private final PipelineFiles files;

    DraftController(Components components, Environments environments, Mirrors mirrors, PipelineFiles files) {
        this.files = files;
        this.components = components;
        this.environments = environments;
        this.mirrors = mirrors;
    }

    /** Looks at a repository and writes a first file; says what it asks, and which name is free where it is taken. */
    @PostMapping("/drafts")
    DraftView draft(@AuthenticationPrincipal Person person, @RequestBody DraftRequest request) {
        Permission.require(person, Action.REGISTER_COMPONENT, "have a file drafted");
        Mirror mirror = mirrors.glance(request.repository(), request.credentials().orElse(SourceAccess.NONE));
        mirror.fetch();
        Map<String, String> heads = mirror.heads();
        String branch = request.branch().orElseGet(
                () -> heads.containsKey("main") || heads.isEmpty() ? "main" : heads.keySet().iterator().next());
        String commit = Optional.ofNullable(heads.get(branch))
                .orElseThrow(() -> Refusal.invalid("/branch", "The repository has no branch " + branch));
        Optional<String> there = text(mirror, commit, request.file().orElse("paseo.yaml"));
        Draft.Drafted drafted = there.map(text -> new Draft.Drafted(text, List.of()))
                .orElseGet(() -> request.like().map(other -> like(person, other, request.component()))
                        .orElseGet(() -> drafted(request, branch, mirror, commit)));
        boolean taken = components.found(request.component()).isPresent();
        return new DraftView(branch, commit, there.isPresent(), drafted.text(),
                drafted.asked().stream().map(DraftController::view).toList(),
                taken ? Optional.of(components.freeName(request.component())) : Optional.empty());
    }

    /** The file of another component's main branch, with this one's name. */
    private Draft.Drafted like(Person person, String other, String name) {
        Permission.require(person, Action.LOOK, Optional.of(other), Optional.empty());
        Components.RegisteredComponent known = components.named(other);
        String head = Optional.ofNullable(components.heads(known.id()).get(known.mainBranch()))
                .orElseThrow(() -> Refusal.invalid("/like", other + " has no pipeline file yet"));
        return new Draft.Drafted(
                LikeAnother.of(files.written(components.readFile(known, head).id()), known.name(), name), List.of());
    }

    private Draft.Drafted drafted(DraftRequest request, String branch, Mirror mirror, String commit) {
        List<Draft.Environment> known = environments.hostCounts().entrySet().stream()
                .map(each -> new Draft.Environment(each.getKey(), each.getValue())).toList();
        try {
            return Draft.of(request.component(), branch, new Draft.Repository(
                    new HashSet<>(mirror.paths(commit, MOST_PATHS)), path -> text(mirror, commit, path)), known,
                    request.answers().orElse(Map.of()));
        } catch (WrongAnswer wrong) {
            throw Refusal.invalid(wrong.name().isEmpty() ? "" : "/answers/" + wrong.name(),
                    String.valueOf(wrong.getMessage()));
        }
    }

    private static QuestionView view(Question question) {
        return new QuestionView(question.name(), question.words(), question.of(), question.standard(),
                question.answer());
    }

    /** A file to draft from; one that is too large to be read says nothing. */
    private static Optional<String> text(Mirror mirror, String commit, String path) {
        try {
            return mirror.file(commit, path);
        } catch (Mirror.TooLarge larger) {
            return Optional.empty();
        }
    }
}

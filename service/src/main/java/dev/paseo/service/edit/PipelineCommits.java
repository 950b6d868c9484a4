package dev.paseo.service.edit;

import dev.paseo.service.trigger.Pusher;
import dev.paseo.service.trigger.Pushes;
import dev.paseo.service.trigger.Starting;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Matching;
import dev.paseo.language.Problem;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.start.Triggers;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.PersonStarts;
import dev.paseo.service.source.Mirror;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Commits pipeline files from the console; what is committed is in force for the very next event. */
@RestController
@RequestMapping("/api/v1/components/{name}/pipeline")
class PipelineCommits {

    /**
     * A text to be committed.
     *
     * @param base the commit that the text was written on: where the branch must still be, or, for a new one, what it
     *             begins at
     */
    record CommitRequest(String branch, String base, @Size(max = 1_000_000) String text, String message) {}

    /** What came of it. */
    record CommittedView(String branch, String commit, Optional<Long> run, Optional<String> reason) {}

    /**
     * A text to be tried.
     *
     * @param base    the commit with which it is tried: one that a branch is at
     * @param answers to what the text asks; what is not answered takes its default
     */
    record TrialRequest(String base, @Size(max = 1_000_000) String text, Optional<Map<String, String>> answers) {}

    /** What a push of this text to this branch would start, and why not where it would not. */
    record EffectView(boolean starts, boolean trusted, String sentence) {}

    record EffectRequest(String branch, @Size(max = 1_000_000) String text) {}

    private final Components components;
    private final PipelineChecks checks;
    private final Pushes pushes;
    private final Accounts accounts;
    private final PersonStarts starts;

    PipelineCommits(Components components, PipelineChecks checks, Pushes pushes, Accounts accounts,
            PersonStarts starts) {
        this.starts = starts;
        this.components = components;
        this.checks = checks;
        this.pushes = pushes;
        this.accounts = accounts;
    }

    /** Commits a pipeline file to a branch of the component's repository, in the name of whoever asks. */
    @PostMapping("/commits")
    @ResponseStatus(HttpStatus.CREATED)
    CommittedView commit(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody CommitRequest request) {
        Permission.require(person, Action.EDIT_PIPELINE, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        refuse(component, request);
        if (component.repository().isEmpty() || components.rules(component.id()).trusts(request.branch())) {
            Permission.require(person, Action.EDIT_TRUSTED,
                    "commit to " + request.branch() + " of " + name
                            + ", which is trusted (commit to a branch of its own, such as "
                            + Components.ownBranch(person) + ")",
                    Optional.of(name), Optional.empty());
        }
        if (component.repository().isEmpty()) {
            components.saveFile(component, request.base(), request.text(), person.name());
            return new CommittedView(request.branch(), components.heads(component.id()).get(component.mainBranch()),
                    Optional.empty(),
                    Optional.of("it is in force from now on"));
        }
        return committed(component, request, person);
    }

    private CommittedView committed(RegisteredComponent component, CommitRequest request, Person person) {
        String commit = commit(component, request, author(person));
        components.committed(component, request.branch(), commit, person.name());
        Optional<Starting.Led> led = pushes
                .look(component.repository().orElseThrow(), Pusher.of(person.name(), request.branch())).moved()
                .stream()
                .filter(each -> each.component().equals(component.name()) && each.commit().equals(commit))
                .map(Pushes.Moved::led).findFirst();
        return new CommittedView(request.branch(), commit, led.flatMap(Starting.Led::run).map(run -> run.number()),
                led.flatMap(Starting.Led::why));
    }

    /**
     * Runs a commit with this text as its pipeline file, on a branch of its own. The branch is not trusted: its run has
     * no secrets, and its version goes nowhere.
     */
    @PostMapping("/trials")
    @ResponseStatus(HttpStatus.CREATED)
    CommittedView attempt(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody TrialRequest request) {
        Permission.require(person, Action.EDIT_PIPELINE, Optional.of(name), Optional.empty());
        Permission.require(person, Action.START_RUN, "start runs of " + name, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        if (component.repository().isEmpty()) {
            throw Refusal.conflict(name + " has no repository: there is no branch on which its file could be tried");
        }
        Map<String, String> heads = components.heads(component.id());
        String branch = IntStream.iterate(1, number -> number + 1)
                .mapToObj(number -> "try/" + person.name() + "-" + number)
                .filter(each -> !heads.containsKey(each)).findFirst().orElseThrow();
        if (components.rules(component.id()).trusts(branch)) {
            throw Refusal.conflict("The branch " + branch + " would be trusted here, so that what is tried would walk: "
                    + "name the trusted branches of " + name + " more narrowly");
        }
        refuseProblems(component, request.text());
        CommittedView made = committed(component, new CommitRequest(branch, request.base(), request.text(),
                "Try another pipeline file"), person);
        return made.run().isPresent() ? made : new CommittedView(branch, made.commit(),
                Optional.of(started(name, branch, request, person)), Optional.empty());
    }

    private long started(String name, String branch, TrialRequest request, Person person) {
        try {
            return starts.start(name, Optional.of(branch), Optional.empty(), request.answers().orElse(Map.of()),
                    new Cause.Asked(person.name(), Optional.of("to try the pipeline file"))).number();
        } catch (Refusal refused) {
            throw Refusal.conflict("No run could be started: " + refused.getMessage() + ". The branch " + branch
                    + " has the text all the same");
        }
    }

    /** Writes the commit as a patch, to be applied elsewhere; nothing changes here. */
    @PostMapping(value = "/patch", produces = "text/plain;charset=utf-8")
    String patch(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody CommitRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        refuse(component, request);
        if (!components.heads(component.id()).containsValue(request.base())) {
            throw Refusal.invalid("/base", "should be the commit that a branch is at");
        }
        return components.mirror(component).patch(request.base(), component.filePath(), request.text(),
                request.message(), author(person));
    }

    private Mirror.Author author(Person person) {
        return new Mirror.Author(person.name(), accounts.addressOf(person.id())
                .orElseThrow(() -> Refusal.conflict("Your account has no verified address to commit with")));
    }

    private void refuse(RegisteredComponent component, CommitRequest request) {
        refuseProblems(component, request.text());
        if (request.message().isBlank() || request.message().length() > 2000) {
            throw Refusal.invalid("/message", "A commit's message has 1 to 2000 characters");
        }
        if (!request.branch().matches("[A-Za-z0-9][A-Za-z0-9._/-]{0,199}") || request.branch().contains("..")
                || request.branch().contains("//")) {
            throw Refusal.invalid("/branch", "should be a branch's name; got “" + request.branch() + "”");
        }
    }

    private String commit(RegisteredComponent component, CommitRequest request, Mirror.Author author) {
        Mirror mirror = components.mirror(component);
        mirror.fetch();
        Map<String, String> heads = mirror.heads();
        Optional<String> head = Optional.ofNullable(heads.get(request.branch()));
        if (head.isPresent() && !head.get().equals(request.base())
                || head.isEmpty() && !heads.containsValue(request.base())) {
            throw Refusal.conflict(request.branch() + " was changed since this text was begun and is now at "
                    + head.map(commit -> commit.substring(0, 8)).orElse("no commit")
                    + ". Nothing was committed; compare and commit again");
        }
        try {
            return mirror.commit(request.branch(), request.base(), head.isEmpty(), component.filePath(), request.text(),
                    request.message(), author);
        } catch (Mirror.NotTaken refused) {
            throw Refusal.conflict("The repository did not take the commit: " + refused.getMessage());
        }
    }

    private void refuseProblems(RegisteredComponent component, String text) {
        List<Problem> problems = checks.check(component, text).problems();
        if (!problems.isEmpty()) {
            throw Refusal.unprocessable("The pipeline file has problems", "Line " + problems.getFirst()
                    + (problems.size() > 1 ? " (and " + (problems.size() - 1) + " more)" : ""));
        }
    }

    /** Says whether a push of this text to this branch would start a run. */
    @PostMapping("/effect")
    EffectView effect(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody EffectRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        BranchRules rules = components.rules(component.id());
        return checks.check(component, request.text()).file().map(file -> {
            List<Matching.InForce> inForce = Matching.InForce.of(name, Triggers.of(file), rules, component.mainBranch(),
                    component.repository());
            List<Matching.Considered> considered = Matching
                    .match(new Event.Pushed(name, request.branch(), "", Optional.empty()), inForce);
            boolean starts = considered.stream().anyMatch(each -> each.finding() instanceof Matching.Finding.Starts);
            boolean trusted = rules.trusts(request.branch());
            return new EffectView(starts, starts && trusted, starts ? "a push to " + request.branch() + " starts a run"
                    + (trusted ? ", and its version walks the route"
                            : "; its version does not walk, since the branch is not trusted")
                    : considered.isEmpty() ? "the file names no triggers"
                            : considered.stream().map(PipelineCommits::words).collect(Collectors.joining("; ")));
        }).orElseGet(() -> new EffectView(false, false, "the file has problems"));
    }

    private static String words(Matching.Considered considered) {
        return considered.of().trigger().words() + ": "
                + (considered.finding() instanceof Matching.Finding.StartsNothing(String reason) ? reason : "");
    }
}

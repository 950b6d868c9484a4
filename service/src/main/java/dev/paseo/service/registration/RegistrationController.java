package dev.paseo.service.registration;

import dev.paseo.service.start.Triggers;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.core.trigger.BringingIn;
import dev.paseo.language.NearestName;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.Problem;
import dev.paseo.language.check.FileChecks;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.component.Registration;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceAccess;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Looks at what would be registered, before it is. */
@RestController
@RequestMapping("/api/v1/registrations")
class RegistrationController {

    /**
     * What a registration would find.
     *
     * @param commit   the newest of the main branch
     * @param problems of the pipeline file that is there
     * @param warnings what is likely to be meant otherwise
     * @param next     what the next push starts, as a sentence
     * @param starts   whether the newest commit could start a run at once
     */
    record RegistrationView(String name, String mainBranch, List<String> branches, Optional<String> commit,
            List<Problem> problems, List<String> warnings, String next, boolean starts) {}

    private static final int MOST_PATHS = 20_000;

    private final Registration registration;
    private final Mirrors mirrors;
    private final PipelineChecks checks;
    private final PipelineFiles files;

    RegistrationController(Registration registration, Mirrors mirrors, PipelineChecks checks, PipelineFiles files) {
        this.files = files;
        this.checks = checks;
        this.registration = registration;
        this.mirrors = mirrors;
    }

    /**
     * Says what registering a component would find, and what would follow; nothing is kept. The same request as to
     * register it.
     */
    @PostMapping
    RegistrationView look(@AuthenticationPrincipal Person person, @RequestBody Registration.NewComponent wanted) {
        Permission.require(person, Action.REGISTER_COMPONENT);
        Registration.requireGrants(person, wanted);
        registration.refuse(wanted);
        String main = wanted.mainBranch().orElse("main");
        if (wanted.repository().isEmpty()) {
            return new RegistrationView(wanted.name(), main, List.of(), Optional.empty(), List.of(), List.of(),
                    "Its versions arrive by upload, or from a store that is observed", false);
        }
        Mirror mirror = mirrors.glance(wanted.repository().get(), wanted.credentials().orElse(SourceAccess.NONE));
        mirror.fetch();
        return look(wanted, main, mirror, new RegisteredComponent(0, wanted.name(), wanted.repository(),
                wanted.file().orElse("paseo.yaml"), main, "", Optional.empty()));
    }

    /** What of the file does not agree with what is here; which secrets have a value is not asked yet. */
    private List<Problem> around(Registration.NewComponent wanted, PipelineFile file, SourcePositions places,
            List<String> branches) {
        Set<String> given = Set.copyOf(wanted.secrets());
        FileChecks.Found found = checks.around(wanted.name(), file, places,
                new PipelineChecks.Own(wanted.repository().isPresent(),
                        Set.copyOf(opened(wanted)),
                        given, given,
                        Set.copyOf(branches)));
        return Stream.concat(found.problems().stream(), found.warnings().stream())
                .filter(each -> !each.path().isEmpty()).toList();
    }

    private static List<String> opened(Registration.NewComponent wanted) {
        return Stream.concat(wanted.sources().orElse(List.of()).stream(),
                wanted.openSources().orElse(List.of()).stream()).distinct().toList();
    }

    private RegistrationView look(Registration.NewComponent wanted, String main, Mirror mirror,
            RegisteredComponent component) {
        List<String> branches = List.copyOf(mirror.heads().keySet());
        Optional<String> commit = Optional.ofNullable(mirror.heads().get(main));
        List<String> warnings = new ArrayList<>();
        Optional<String> text = commit.flatMap(at -> {
            try {
                return mirror.file(at, component.filePath());
            } catch (Mirror.TooLarge larger) {
                warnings.add(String.valueOf(larger.getMessage()));
                return Optional.empty();
            }
        });
        Optional<PipelineText> read = text.map(found -> files.text(wanted.name(), opened(wanted), found));
        List<Problem> problems = read
                .map(found -> PipelineFiles.problems(found.reading(), List.of(component.name())))
                .orElse(List.of());
        Optional<PipelineFile> file = read.filter(found -> problems.isEmpty())
                .map(found -> found.reading().value().orElseThrow());
        BringingIn.Said said = BringingIn.of(wanted.name(),
                new BringingIn.Repository(branches, main, component.filePath(), text.isPresent(),
                        file.map(Triggers::of),
                        file.map(each -> each.route().stream().flatMap(step -> step.keySet().stream()).toList())
                                .orElse(List.of())),
                BranchRules.of(wanted.allowed(), wanted.trusted()));
        warnings.addAll(said.warnings());
        file.ifPresent(each -> around(wanted, each, read.orElseThrow().places(), branches)
                .forEach(found -> warnings.add(component.filePath() + ":" + found.line() + ": " + found.message())));
        if (text.isEmpty()) {
            commit.flatMap(at -> NearestName.of(component.filePath(), mirror.paths(at, MOST_PATHS)))
                    .ifPresent(near -> warnings
                            .add("it has " + near + "; if that is its pipeline file, register it with that path"));
        }
        return new RegistrationView(wanted.name(), main, branches, commit, problems, warnings, said.next(),
                said.starts());
    }
}

package dev.paseo.service.environment;

import dev.paseo.language.environment.EnvironmentsFile;
import java.util.Objects;
import java.nio.charset.StandardCharsets;
import java.io.InputStream;
import java.io.IOException;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Rules;
import dev.paseo.language.Problem;
import dev.paseo.language.file.Names;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class EnvironmentController {

    /**
     * The text of an environments file; {@code base} is the digest of the file that it was made from, where what others
     * changed since is not to be lost.
     */
    record FileRequest(@Size(max = 1_000_000) String text, Optional<String> base, Optional<Boolean> loosen) {}

    /**
     * What is wrong with a file, at which line and column; where nothing is, what loading it would change. Warnings
     * keep it from nothing; what loosens rules has to be meant. {@code digest} is that of the environments as they are
     * now; {@code said} is what each gate asks, in words.
     */
    record FileCheckView(List<Problem> problems, List<Problem> warnings, List<EnvironmentChecks.Change> changes,
            List<EnvironmentChecks.Change> loosens, String digest, List<EnvironmentChecks.GateInWords> said) {}

    /** The JSON Schema (2020-12) of environments files. */
    @GetMapping(value = "/environments-schema", produces = "application/schema+json")
    String schema() throws IOException {
        try (InputStream in = Objects.requireNonNull(
                EnvironmentsFile.class.getResourceAsStream("/dev/paseo/language/environments.schema.json"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** What should be changed in a file that was loaded all the same. */
    record LoadedView(List<Problem> warnings) {}

    record EnvironmentView(String name, String zone, Rules rules, long rulesRevision) {}

    private final Environments environments;
    private final Loading loading;
    private final VariableChanges variables;
    private final EnvironmentChecks checks;
    private final Exporting exporting;

    EnvironmentController(Environments environments, Loading loading, VariableChanges variables,
            EnvironmentChecks checks, Exporting exporting) {
        this.environments = environments;
        this.loading = loading;
        this.variables = variables;
        this.checks = checks;
        this.exporting = exporting;
    }

    /** Lists all environments in their order, with their rules. */
    @GetMapping("/environments")
    List<EnvironmentView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return environments.all().stream()
                .map(known -> new EnvironmentView(known.name(), known.zone(), known.rules(), known.rulesRevision()))
                .toList();
    }

    /** Loads an environments file: all of it, or nothing where it has problems. */
    @PutMapping("/environments")
    LoadedView load(@AuthenticationPrincipal Person person, @RequestBody FileRequest request) {
        Permission.require(person, Action.EDIT_ENVIRONMENT);
        return new LoadedView(loading.load(request.text(),
                new Loading.Meant(request.base(), request.loosen().orElse(false), Optional.empty()), person));
    }

    /** Says what is wrong with an environments file, or what loading it would change. Changes nothing. */
    @PostMapping("/environments/check")
    FileCheckView check(@AuthenticationPrincipal Person person, @RequestBody FileRequest request) {
        Permission.require(person, Action.LOOK);
        EnvironmentChecks.Checked checked = checks.check(request.text());
        return new FileCheckView(checked.problems(), checked.warnings(),
                checked.file().map(checks::changes).orElse(List.of()),
                checked.file().map(checks::loosens).orElse(List.of()), exporting.digest(),
                checked.file().map(EnvironmentChecks::inWords).orElse(List.of()));
    }

    /** A variable of a component in an environment, or of one host there; without a value it is taken away. */
    record VariableRequest(String name, Optional<String> value, Optional<String> host) {}

    /** What a place's settings were from a revision on: who set them, when, and what changed. */
    record RevisionView(long revision, String by, Instant at, Environments.PlaceSettings settings) {}

    /** Sets or removes a variable of a place; it holds from the next deployment or a redeploy on. */
    @PutMapping("/places/{component}/{environment}/variables")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void variable(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment, @RequestBody VariableRequest request) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "set variables of " + component + " in " + environment,
                Optional.of(component), Optional.of(environment));
        if (!Names.VARIABLE.matcher(request.name()).matches()) {
            throw Refusal.invalid("/name", "A variable's name has " + Names.VARIABLE_WORDS);
        }
        variables.set(environments.place(component, environment),
                new VariableChanges.Variable(request.name(), request.value(), request.host()), person);
    }

    /** The revisions of a place's settings, the newest first. */
    @GetMapping("/places/{component}/{environment}/settings")
    List<RevisionView> settings(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.of(environment));
        Environments.Place place = environments.place(component, environment);
        return environments.revisions(place.id()).stream()
                .map(row -> new RevisionView(row.revision(), row.by(), row.at(),
                        environments.settings(place.id(), row.revision())))
                .toList();
    }
}

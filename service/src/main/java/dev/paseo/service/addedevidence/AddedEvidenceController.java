package dev.paseo.service.addedevidence;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.evidence.SignOff;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.component.Components;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
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
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Evidence that is added to versions after they were sealed. */
@RestController
@RequestMapping("/api/v1/versions/{component}/{number}")
class AddedEvidenceController {

    /**
     * What somebody says about a version.
     *
     * @param name        whose word it is; they need no account; 1 to 100 characters
     * @param words       1 to 2,000 characters
     * @param environment about it as it is there; none: wherever it is
     */
    record SignOffRequest(String name, String words, Optional<String> environment) {}

    /** The SHA-256 of what was added. */
    record AddedView(String sha256) {}

    private final AddedEvidence added;
    private final Evidence evidence;
    private final KeptBytes bytes;
    private final Components components;
    private final Versions versions;

    AddedEvidenceController(AddedEvidence added, Evidence evidence, KeptBytes bytes, Components components,
            Versions versions) {
        this.added = added;
        this.evidence = evidence;
        this.bytes = bytes;
        this.components = components;
        this.versions = versions;
    }

    private Versions.Version version(String component, String number) {
        Components.RegisteredComponent known = components.named(component);
        return versions.numbered(known.id(), known.name(), number);
    }

    private static void mayAdd(Person person, String component, Optional<String> environment) {
        Permission.require(person, Action.ADD_EVIDENCE, "add evidence to versions of " + component,
                Optional.of(component), environment);
    }

    /** What was added to a version after it was sealed, the oldest first. */
    @GetMapping("/evidence")
    List<Evidence.AddedEvidenceView> all(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return evidence.added(version(component, number).id());
    }

    /**
     * Adds a report, a signature or a statement to a version: the bytes of the file, at most 64 MB. The same file again
     * changes nothing. Gates that wait see it at once.
     *
     * @param kind        tests (JUnit XML), coverage (JaCoCo or Cobertura XML), findings (SARIF 2.1.0), parts
     *                    (CycloneDX 1.2 to 1.7, JSON or XML): these are read; signature and statement: these are
     *                    kept as they are
     * @param environment about the version as it is there; none: wherever it is
     */
    @PutMapping(value = "/evidence/{kind}", consumes = "application/octet-stream")
    AddedView add(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number, @PathVariable String kind, @RequestParam Optional<String> environment,
            HttpServletRequest request) throws IOException {
        mayAdd(person, component, environment);
        return new AddedView(added.file(version(component, number), environment, kind, request.getInputStream(),
                person));
    }

    /** A file that was added, byte for byte. */
    @GetMapping("/evidence/{sha256}")
    void file(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @PathVariable String sha256, HttpServletResponse response) throws IOException {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        if (evidence.added(version(component, number).id()).stream()
                .noneMatch(each -> each.sha256().equals(sha256) && !each.kind().equals(Evidence.SIGN_OFF))) {
            throw Refusal.notFound("No file with this digest was added to " + component + " " + number);
        }
        response.setContentType("application/octet-stream");
        response.setHeader("Content-Disposition", "attachment; filename=\"" + sha256 + "\"");
        try (InputStream in = bytes.open(sha256)) {
            in.transferTo(response.getOutputStream());
        }
    }

    /** Adds what a person says about a version, who may have no account here. Gates that wait see it at once. */
    @PostMapping("/sign-offs")
    @ResponseStatus(HttpStatus.CREATED)
    void signOff(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @RequestBody SignOffRequest request) {
        mayAdd(person, component, request.environment());
        added.signOff(version(component, number), request.environment(),
                new SignOff(request.name().strip(), request.words().strip()), person);
    }
}

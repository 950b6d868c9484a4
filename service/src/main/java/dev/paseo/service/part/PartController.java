package dev.paseo.service.part;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.evidence.Parts;
import dev.paseo.service.component.Components;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.part.PartFinding.PackageView;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What versions are made of, as their reports of parts say. */
@RestController
@RequestMapping("/api/v1")
class PartController {

    private static final int LONGEST = 400;

    /**
     * A part.
     *
     * @param name    its package URL without version, qualifiers and subpath; where it has none, its group and name
     * @param version absent: it is not told
     * @param licence SPDX identifiers or expressions, or names; absent: none is told
     */
    record PartOfVersionView(String name, Optional<String> version, Optional<String> licence) {}

    /**
     * What a version is made of.
     *
     * @param unlicensed parts of which no licence is told
     * @param parts      by name; empty where no report of parts is there
     */
    record PartsOfVersionView(long total, long unlicensed, List<PartOfVersionView> parts) {}

    private final PartFinding finding;
    private final Evidence evidence;
    private final Versions versions;
    private final Components components;

    PartController(PartFinding finding, Evidence evidence, Versions versions, Components components) {
        this.finding = finding;
        this.evidence = evidence;
        this.versions = versions;
        this.components = components;
    }

    /** What a version is made of, as the newest report of parts of each stage says, and what came with it. */
    @GetMapping("/versions/{component}/{number}/parts")
    PartsOfVersionView parts(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        Components.RegisteredComponent known = components.named(component);
        Versions.Version version = versions.numbered(known.id(), known.name(), number);
        Parts parts = evidence.parts(version.id(), version.run());
        return new PartsOfVersionView(parts.summary().total(), parts.summary().unlicensed(),
                parts.list().stream().map(part -> new PartOfVersionView(part.name(), present(part.version()),
                        present(part.licence()))).toList());
    }

    private static Optional<String> present(String text) {
        return Optional.of(text).filter(each -> !each.isEmpty());
    }

    /**
     * Which versions have a part, and where they are live: those that are live first, then the newest; at most 500.
     *
     * @param name a package URL, with a version or without, such as pkg:maven/org.example/horizon@3.1; or the
     *             last word of a name, such as horizon; at most 400 characters
     * @param live only versions that are live somewhere
     */
    @GetMapping("/packages")
    PackageView having(@AuthenticationPrincipal Person person, @RequestParam String name,
            @RequestParam(defaultValue = "false") boolean live) {
        Permission.require(person, Action.LOOK);
        if (name.isBlank() || name.length() > LONGEST) {
            throw Refusal.invalid("/name", "should have 1 to " + LONGEST + " characters");
        }
        return finding.of(name.strip(), live, person);
    }
}

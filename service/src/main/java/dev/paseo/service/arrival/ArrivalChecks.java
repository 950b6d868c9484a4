package dev.paseo.service.arrival;

import dev.paseo.api.archive.TarReader;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.springframework.stereotype.Component;

/** Whether what arrived can become a version: its number, its artifacts, the files that the recipe brings. */
@Component
class ArrivalChecks {

    private static final int MOST_ENTRIES = 10_000;

    private final Components components;
    private final Versions versions;
    private final KeptBytes bytes;

    ArrivalChecks(Components components, Versions versions, KeptBytes bytes) {
        this.components = components;
        this.versions = versions;
        this.bytes = bytes;
    }

    /** The version of this number, where it is here with exactly these artifacts; refused where it has others. */
    Optional<Long> here(RegisteredComponent component, String number, List<Versions.Artifact> artifacts) {
        if (!versions.exists(component.id(), number)) {
            return Optional.empty();
        }
        Versions.Version sealed = versions.numbered(component.id(), component.name(), number);
        Set<String> kept = words(versions.artifacts(sealed.id()));
        Set<String> sent = words(artifacts);
        if (!kept.equals(sent)) {
            Set<String> ours = new TreeSet<>(kept);
            ours.removeAll(sent);
            Set<String> theirs = new TreeSet<>(sent);
            theirs.removeAll(kept);
            throw Refusal.conflict(
                    component.name() + " " + number
                            + " is sealed with other bytes, and a version never changes. It was sealed with "
                            + orNothing(ours) + "; received: " + orNothing(theirs));
        }
        return Optional.of(sealed.id());
    }

    private static String orNothing(Set<String> artifacts) {
        return artifacts.isEmpty() ? "nothing more" : String.join(", ", artifacts);
    }

    private static Set<String> words(List<Versions.Artifact> artifacts) {
        Set<String> words = new TreeSet<>();
        artifacts.forEach(artifact -> words.add(artifact.name() + " sha256:" + artifact.digest()));
        return words;
    }

    /** Refuses what the recipe could not deploy; asked before anything is sent, and again when it is sealed. */
    PipelineFile file(RegisteredComponent component, Set<String> artifacts) {
        FileInForce file = Optional.ofNullable(components.heads(component.id()).get(component.mainBranch()))
                .map(head -> components.readFile(component, head))
                .orElseThrow(() -> Refusal.conflict(component.name() + " has no pipeline file yet"));
        PipelineFile read = file.file().orElseThrow(() -> Refusal
                .conflict("The pipeline file of " + component.name() + " has problems: " + file.problems().getFirst()));
        List<String> wanted = read.deployment().map(Recipe::artifacts).orElse(List.of());
        List<String> missing = wanted.stream().filter(name -> !artifacts.contains(name)).toList();
        if (!missing.isEmpty()) {
            throw Refusal.conflict("The recipe of " + component.name() + " deploys " + String.join(", ", missing)
                    + ", but the upload has "
                    + String.join(", ", artifacts));
        }
        return read;
    }

    /** Refuses what lacks files that the recipe brings. */
    void bundle(RegisteredComponent component, Arrivals.Arrived arrived, List<String> brings) {
        if (arrived.bundle() == null) {
            if (brings.isEmpty()) {
                return;
            }
            throw Refusal.conflict("The recipe of " + component.name() + " brings " + String.join(", ", brings)
                    + ": send them too");
        }
        List<String> paths = paths(arrived.bundle());
        List<String> unmet = brings.stream()
                .filter(pattern -> paths.stream().noneMatch(new BranchPattern(pattern)::matches)).toList();
        if (!unmet.isEmpty()) {
            throw Refusal.conflict("The recipe of " + component.name() + " brings " + String.join(", ", unmet)
                    + ", and none of the files received matches");
        }
    }

    private List<String> paths(String bundle) {
        List<String> paths = new ArrayList<>();
        try (TarReader tar = new TarReader(bytes.openUnchecked(bundle))) {
            for (Optional<TarArchiveEntry> next = tar.next(); next.isPresent(); next = tar.next()) {
                TarArchiveEntry entry = next.get();
                if (paths.size() >= MOST_ENTRIES) {
                    throw Refusal
                            .tooLarge("The archive of the recipe's files has more than " + MOST_ENTRIES + " files");
                }
                if (entry.getName().startsWith("/") || List.of(entry.getName().split("/")).contains("..")) {
                    throw Refusal.unprocessable("The recipe's files cannot be taken",
                            "Their archive holds " + entry.getName() + ", which lies outside its folder");
                }
                if (!entry.isDirectory()) {
                    paths.add(entry.getName());
                }
            }
        } catch (IOException broken) {
            throw Refusal.unprocessable("The recipe's files cannot be read", "Their archive " + broken.getMessage());
        }
        if (paths.isEmpty()) {
            throw Refusal.unprocessable("The recipe's files cannot be read",
                    "A tar archive is wanted, and this one holds no file");
        }
        return paths;
    }
}

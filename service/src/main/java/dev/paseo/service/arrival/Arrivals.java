package dev.paseo.service.arrival;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.text.Shortened;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Makes versions of what arrived, with the recipe and the route of the component's file as it is in force. */
@Component
public class Arrivals {

    /**
     * What arrived, all of it kept already.
     *
     * @param how     in words, as it completes "arrived ..."
     * @param by      who sent it; empty where nobody did
     * @param bundle  digest of an archive of the files that the recipe brings
     * @param reports what was read of the reports beside it
     */
    public record Arrived(String number, List<Versions.Artifact> artifacts, @Nullable String bundle,
            List<Report> reports,
            Set<String> authors, String how, String by) {}

    record Report(String kind, String digest, Object summary) {}

    /** @param fresh whether it was not here before */
    public record Result(long version, boolean fresh) {}

    public static final Pattern NUMBER = Pattern.compile("[0-9A-Za-z][0-9A-Za-z._+-]{0,119}");

    private final Versions versions;
    private final ArrivalChecks checks;
    private final RunStarts lines;
    private final Causes causes;
    private final Evidence evidence;

    Arrivals(Versions versions, ArrivalChecks checks, RunStarts lines, Causes causes, Evidence evidence) {
        this.versions = versions;
        this.checks = checks;
        this.lines = lines;
        this.causes = causes;
        this.evidence = evidence;
    }

    public static void checkNumber(String number) {
        if (!NUMBER.matcher(number).matches()) {
            throw Refusal.invalid("/number", "A version's number has letters, digits and . _ + -, at most 120; got “"
                    + (Shortened.to(number, 60)) + "”");
        }
    }

    /** The version of this number, where it is here with exactly these artifacts; refused where it has others. */
    Optional<Long> here(RegisteredComponent component, String number, List<Versions.Artifact> artifacts) {
        return checks.here(component, number, artifacts);
    }

    /** The file in force; refuses what its recipe could not deploy. */
    PipelineFile file(RegisteredComponent component, Set<String> artifacts) {
        return checks.file(component, artifacts);
    }

    /** Seals it, in the transaction under way. */
    public Result seal(RegisteredComponent component, Arrived arrived) {
        lines.holdLine(component.id(), Versions.UPLOADED);
        Optional<Long> here = checks.here(component, arrived.number(), arrived.artifacts());
        if (here.isPresent()) {
            return new Result(here.get(), false);
        }
        PipelineFile file = checks.file(component,
                new TreeSet<>(arrived.artifacts().stream().map(Versions.Artifact::name).toList()));
        checks.bundle(component, arrived, file.deployment().map(Recipe::bring).orElse(List.of()));
        long line = lines.holdLine(component.id(), Versions.UPLOADED);
        long cause = causes.add(
                new Cause.Arrival(component.name(), arrived.number(), arrived.how(), arrived.by()),
                OptionalLong.empty());
        long version = versions.arrive(component.id(), new Versions.Outcome(component.name(), arrived.number(), line,
                versions.count(line) + 1, true, null, null,
                arrived.bundle(), cause, Optional.empty(),
                file.deployment().map(
                        recipe -> recipe.deploying(arrived.artifacts().stream().map(Versions.Artifact::name).toList())),
                file.route(), arrived.artifacts(),
                arrived.how() + (arrived.by().isEmpty() ? "" : ", sent by " + arrived.by())), arrived.authors());
        arrived.reports().forEach(
                report -> evidence.keepOfVersion(version, report.kind(), report.digest(), report.summary()));
        return new Result(version, true);
    }
}

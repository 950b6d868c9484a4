package dev.paseo.service.arrival;

import dev.paseo.core.access.Person;
import dev.paseo.core.text.Size;
import dev.paseo.language.file.Names;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.version.Versions;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/** Uploads: announced with all digests, sent in any number of pieces, sealed when every byte is here and right. */
@Component
class Uploads {

    static final String ARTIFACT = "artifact";
    static final String BUNDLE = "bundle";
    static final Set<String> REPORTS = Set.of("tests", "coverage", "findings", "parts");
    private static final Pattern DIGEST = Pattern.compile("[0-9a-f]{64}");
    private static final int MOST_FILES = 200;
    private static final long LARGEST = 16_000_000_000L;

    /**
     * A file that is going to be sent.
     *
     * @param kind     {@code artifact}; {@code bundle}: a tar archive of what the recipe brings; {@code tests}, {@code
     *                 coverage}, {@code findings}, {@code parts}: a tar archive of report files
     * @param name     of the artifact; of others any
     * @param fileName the file's own name
     * @param size     in bytes, at most 16 GB
     * @param digest   SHA-256 in hexadecimal
     */
    record Announced(String kind, String name, String fileName, long size, String digest) {}

    /** @param authors mail addresses of those who wrote what is in it, beside the uploader */
    record Statement(List<Announced> files, List<String> authors) {}

    private final UploadMapper mapper;
    private final Arrivals arrivals;
    private final Quotas quotas;
    private final Changes changes;
    private final Json json;

    Uploads(UploadMapper mapper, Arrivals arrivals, Quotas quotas, Changes changes, Json json) {
        this.mapper = mapper;
        this.arrivals = arrivals;
        this.quotas = quotas;
        this.changes = changes;
        this.json = json;
    }

    /** Begins an upload, or goes on with the same one; empty where exactly these artifacts are the version already. */
    Optional<Long> begin(RegisteredComponent component, String number, Statement statement, Person by) {
        if (component.retired().isPresent()) {
            throw Refusal.conflict(component.name() + " is retired and accepts no more versions");
        }
        Arrivals.checkNumber(number);
        check(statement);
        List<Versions.Artifact> artifacts = statement.files().stream().filter(file -> file.kind().equals(ARTIFACT))
                .map(file -> new Versions.Artifact(file.name(), file.fileName(), file.digest(), file.size())).toList();
        if (arrivals.here(component, number, artifacts).isPresent()) {
            return Optional.empty();
        }
        PipelineFile inForce = arrivals.file(component,
                new TreeSet<>(artifacts.stream().map(Versions.Artifact::name).toList()));
        List<String> brings = inForce.deployment().map(Recipe::bring).orElse(List.of());
        if (!brings.isEmpty() && statement.files().stream().noneMatch(each -> each.kind().equals(BUNDLE))) {
            throw Refusal.conflict("The recipe of " + component.name() + " brings " + String.join(", ", brings)
                    + ": send them too");
        }
        quotas.room(component.id(), statement.files().stream().mapToLong(Announced::size).sum());
        String words = json.write(statement);
        return Optional.of(changes.in(() -> mapper.open(component.id(), number, by.id(), words)
                .map(UploadMapper.UploadRow::id).orElseGet(() -> {
                    UploadMapper.NewUpload row = new UploadMapper.NewUpload(component.id(), number, by.id(), words,
                            changes.now());
                    mapper.add(row);
                    statement.files().forEach(file -> mapper.addFile(row.id, file.kind(), file.name(), file.fileName(),
                            file.size(), file.digest()));
                    return row.id;
                })));
    }

    private static void check(Statement statement) {
        if (statement.files().isEmpty() || statement.files().size() > MOST_FILES) {
            throw Refusal.invalid("/files", "An upload has 1 to " + MOST_FILES + " files, one of them an artifact");
        }
        Set<String> seen = new HashSet<>();
        for (int at = 0; at < statement.files().size(); at++) {
            check(statement.files().get(at), "/files/" + at);
            Announced file = statement.files().get(at);
            if (!seen.add(file.kind() + " " + file.name()) || file.kind().equals(BUNDLE) && !seen.add(BUNDLE)) {
                throw Refusal.invalid("/files/" + at + "/name",
                        "There is another " + file.kind() + " named " + file.name());
            }
        }
        if (statement.files().stream().noneMatch(file -> file.kind().equals(ARTIFACT))) {
            throw Refusal.invalid("/files", "An upload has 1 to " + MOST_FILES + " files, one of them an artifact");
        }
        if (statement.authors().size() > 100
                || statement.authors().stream().anyMatch(address -> !address.contains("@") || address.length() > 254)) {
            throw Refusal.invalid("/authors", "should be at most 100 mail addresses");
        }
    }

    private static void check(Announced file, String pointer) {
        if (!file.kind().equals(ARTIFACT) && !file.kind().equals(BUNDLE) && !REPORTS.contains(file.kind())) {
            throw Refusal.invalid(pointer + "/kind",
                    "should be artifact, bundle, tests, coverage, findings or parts; got “" + file.kind() + "”");
        }
        if (!Names.NAME.matcher(file.name()).matches()) {
            throw Refusal.invalid(pointer + "/name", "has " + Names.NAME_WORDS + "; got “" + file.name() + "”");
        }
        if (file.fileName().isBlank() || file.fileName().length() > 255 || file.fileName().contains("/")
                || file.fileName().contains("\\")
                || file.fileName().startsWith(".") || file.fileName().chars().anyMatch(Character::isISOControl)) {
            throw Refusal.invalid(pointer + "/fileName",
                    "A file's own name has no slash and does not begin with a dot; got “" + file.fileName() + "”");
        }
        if (file.size() < 0 || file.size() > LARGEST) {
            throw Refusal.invalid(pointer + "/size",
                    "A file has at most " + Size.words(LARGEST) + "; got " + file.size() + " bytes");
        }
        if (!DIGEST.matcher(file.digest()).matches()) {
            throw Refusal.invalid(pointer + "/digest", "should be a SHA-256 in 64 hexadecimal digits");
        }
    }

    UploadMapper.UploadRow upload(long id) {
        return mapper.byId(id).orElseThrow(() -> Refusal.notFound("There is no upload " + id));
    }

    List<UploadMapper.FileRow> files(long id) {
        return mapper.files(id);
    }
}

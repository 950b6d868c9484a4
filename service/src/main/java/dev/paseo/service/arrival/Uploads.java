package dev.paseo.service.arrival;

import dev.paseo.core.text.Size;
import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.language.file.Names;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.version.Versions;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Uploads: announced with all digests, sent in any number of pieces, sealed when every byte is here and right. */
@Component
class Uploads {

    static final String ARTIFACT = "artifact";
    static final String BUNDLE = "bundle";
    private static final Set<String> REPORTS = Set.of("tests", "coverage", "findings", "parts");
    private static final Pattern DIGEST = Pattern.compile("[0-9a-f]{64}");
    private static final int MOST_FILES = 200;
    private static final long LARGEST = 16_000_000_000L;
    private static final Duration FORGOTTEN = Duration.ofDays(2);

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
    private final Parts parts;
    private final Arrivals arrivals;
    private final KeptBytes bytes;
    private final Around around;

    /** What an upload needs and leaves. */
    @Component("uploadAround")
    record Around(Changes changes, Json json, Accounts accounts, Evidence evidence, Quotas quotas) {}

    Uploads(UploadMapper mapper, Parts parts, Arrivals arrivals, KeptBytes bytes, Around around) {
        this.mapper = mapper;
        this.parts = parts;
        this.arrivals = arrivals;
        this.bytes = bytes;
        this.around = around;
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
        around.quotas().room(component.id(), statement.files().stream().mapToLong(Announced::size).sum());
        String words = around.json().write(statement);
        return Optional.of(around.changes().in(() -> mapper.open(component.id(), number, by.id(), words)
                .map(UploadMapper.UploadRow::id).orElseGet(() -> {
                    UploadMapper.NewUpload row = new UploadMapper.NewUpload(component.id(), number, by.id(), words,
                            around.changes().now());
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

    long received(long id, UploadMapper.FileRow file) {
        return file.complete() ? file.size() : parts.length(id, file.kind(), file.name());
    }

    /** Takes a piece of a file; how much of it is here then. */
    long send(UploadMapper.UploadRow upload, String kind, String name, long offset, InputStream piece) {
        if (!upload.status().equals("open")) {
            throw Refusal.conflict("Upload " + upload.id() + " is " + upload.status() + " and accepts no more files");
        }
        UploadMapper.FileRow file = mapper.files(upload.id()).stream()
                .filter(each -> each.kind().equals(kind) && each.name().equals(name)).findFirst()
                .orElseThrow(() -> Refusal
                        .notFound("Upload " + upload.id() + " announced no " + kind + " named " + name));
        if (file.complete()) {
            return file.size();
        }
        long before = here(upload.id(), kind, name);
        around.quotas().room(upload.componentId(), file.size() - before);
        try {
            long length = parts.append(upload.id(), file, offset, piece);
            if (length == file.size()) {
                arrived(upload.id(), file);
            }
            return length;
        } finally {
            around.quotas().kept(upload.componentId(), Math.max(0, here(upload.id(), kind, name) - before));
        }
    }

    private long here(long upload, String kind, String name) {
        return files(upload).stream().filter(each -> each.kind().equals(kind) && each.name().equals(name)).findFirst()
                .map(file -> received(upload, file)).orElse(0L);
    }

    private void arrived(long upload, UploadMapper.FileRow file) {
        try (InputStream part = parts.open(upload, file.kind(), file.name())) {
            ByteStore.StoredBytes kept = bytes.keep(part, file.size(), around.changes().now());
            if (!kept.digest().equals(file.digest())) {
                parts.drop(upload, file.kind(), file.name());
                throw Refusal.unprocessable("Other bytes",
                        file.name() + " was announced as sha256:" + file.digest() + ", and what arrived is sha256:"
                                + kept.digest() + ". What arrived is discarded: send it again");
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        around.changes().run(() -> {
            bytes.refer(file.digest(), "upload", upload);
            mapper.complete(upload, file.kind(), file.name());
        });
        parts.drop(upload, file.kind(), file.name());
    }

    /** Makes the version. The same upload again, or the same bytes by another, changes nothing more. */
    Arrivals.Result seal(long id, RegisteredComponent component, Person by) {
        UploadMapper.UploadRow upload = upload(id);
        List<UploadMapper.FileRow> files = mapper.files(id);
        List<String> missing = files.stream().filter(file -> !file.complete())
                .map(file -> file.name() + " (" + Size.words(received(id, file)) + " of " + Size.words(file.size())
                        + ")")
                .toList();
        if (!missing.isEmpty() && upload.status().equals("open")) {
            throw Refusal.conflict("These files have not arrived completely: " + String.join(", ", missing));
        }
        List<Arrivals.Report> reports = new ArrayList<>();
        files.stream().filter(file -> REPORTS.contains(file.kind())).forEach(file -> reports.add(
                new Arrivals.Report(file.kind(), file.digest(), around.evidence().read(file.kind(), file.digest()))));
        Set<String> authors = new LinkedHashSet<>(List.of(by.name()));
        around.json().read(upload.statement(), Statement.class).authors()
                .forEach(address -> authors.add(address.toLowerCase(Locale.ROOT)));
        List<Versions.Artifact> artifacts = files.stream().filter(file -> file.kind().equals(ARTIFACT))
                .map(file -> new Versions.Artifact(file.name(), file.fileName(), file.digest(), file.size())).toList();
        String bundle = files.stream().filter(file -> file.kind().equals(BUNDLE)).map(UploadMapper.FileRow::digest)
                .findFirst().orElse(null);
        return around.changes().in(() -> {
            mapper.locked(id);
            Arrivals.Result result = arrivals.seal(component,
                    new Arrivals.Arrived(upload.number(), artifacts, bundle, reports, authors, "by upload", by.name()));
            mapper.end(id, "sealed", around.changes().now());
            if (result.fresh()) {
                around.changes().record(
                        AuditTrail.Entry.of(by.name(), "version published", component.name() + " " + upload.number()));
            }
            return result;
        });
    }

    /** What nobody goes on with is forgotten after two days. */
    @Scheduled(fixedDelay = 600_000)
    void forget() {
        for (long id : mapper.forgotten(around.changes().now().minus(FORGOTTEN))) {
            long component = upload(id).componentId();
            mapper.files(id).stream().filter(file -> !file.complete()).forEach(file -> {
                around.quotas().kept(component, -parts.length(id, file.kind(), file.name()));
                parts.drop(id, file.kind(), file.name());
            });
            mapper.dropFiles(id);
            mapper.end(id, "forgotten", around.changes().now());
        }
    }
}

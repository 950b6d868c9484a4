package dev.paseo.service.arrival;

import dev.paseo.core.access.Person;
import dev.paseo.core.text.Size;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Makes versions of uploads that are here completely. */
@Component
class UploadSeals {

    private final UploadMapper mapper;
    private final UploadPieces pieces;
    private final Arrivals arrivals;
    private final Evidence evidence;
    private final Changes changes;
    private final Json json;

    UploadSeals(UploadMapper mapper, UploadPieces pieces, Arrivals arrivals, Evidence evidence, Changes changes,
            Json json) {
        this.mapper = mapper;
        this.pieces = pieces;
        this.arrivals = arrivals;
        this.evidence = evidence;
        this.changes = changes;
        this.json = json;
    }

    /**
     * The same upload again, or the same bytes by another, changes nothing more.
     *
     * @throws Refusal a conflict where a file is not here completely, or the number is that of other bytes
     */
    Arrivals.Result seal(UploadMapper.UploadRow upload, RegisteredComponent component, Person by) {
        long id = upload.id();
        List<UploadMapper.FileRow> files = mapper.files(id);
        List<String> missing = files.stream().filter(file -> !file.complete())
                .map(file -> file.name() + " (" + Size.words(pieces.received(id, file)) + " of "
                        + Size.words(file.size())
                        + ")")
                .toList();
        if (!missing.isEmpty() && upload.status().equals("open")) {
            throw Refusal.conflict("These files have not arrived completely: " + String.join(", ", missing));
        }
        List<Arrivals.Report> reports = new ArrayList<>();
        files.stream().filter(file -> Uploads.REPORTS.contains(file.kind())).forEach(file -> reports.add(
                new Arrivals.Report(file.kind(), file.digest(), evidence.read(file.kind(), file.digest()))));
        Set<String> authors = new LinkedHashSet<>(List.of(by.name()));
        json.read(upload.statement(), Uploads.Statement.class).authors()
                .forEach(address -> authors.add(address.toLowerCase(Locale.ROOT)));
        List<Versions.Artifact> artifacts = files.stream().filter(file -> file.kind().equals(Uploads.ARTIFACT))
                .map(file -> new Versions.Artifact(file.name(), file.fileName(), file.digest(), file.size())).toList();
        String bundle = files.stream().filter(file -> file.kind().equals(Uploads.BUNDLE))
                .map(UploadMapper.FileRow::digest)
                .findFirst().orElse(null);
        return changes.in(() -> {
            mapper.locked(id);
            Arrivals.Result result = arrivals.seal(component,
                    new Arrivals.Arrived(upload.number(), artifacts, bundle, reports, authors, "by upload", by.name()));
            mapper.end(id, "sealed", changes.now());
            if (result.fresh()) {
                changes.record(
                        AuditTrail.Entry.of(by.name(), "version published", component.name() + " " + upload.number()));
            }
            return result;
        });
    }
}

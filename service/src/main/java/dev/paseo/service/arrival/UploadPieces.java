package dev.paseo.service.arrival;

import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.time.Duration;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** The pieces of what is being sent: put together, held against their digest, and forgotten where nobody goes on. */
@Component
class UploadPieces {

    private static final Duration FORGOTTEN = Duration.ofDays(2);

    private final UploadMapper mapper;
    private final Parts parts;
    private final KeptBytes bytes;
    private final Quotas quotas;
    private final Changes changes;

    UploadPieces(UploadMapper mapper, Parts parts, KeptBytes bytes, Quotas quotas, Changes changes) {
        this.mapper = mapper;
        this.parts = parts;
        this.bytes = bytes;
        this.quotas = quotas;
        this.changes = changes;
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
        quotas.room(upload.componentId(), file.size() - before);
        try {
            long length = parts.append(upload.id(), file, offset, piece);
            if (length == file.size()) {
                arrived(upload.id(), file);
            }
            return length;
        } finally {
            quotas.kept(upload.componentId(), Math.max(0, here(upload.id(), kind, name) - before));
        }
    }

    private long here(long upload, String kind, String name) {
        return mapper.files(upload).stream().filter(each -> each.kind().equals(kind) && each.name().equals(name))
                .findFirst()
                .map(file -> received(upload, file)).orElse(0L);
    }

    private void arrived(long upload, UploadMapper.FileRow file) {
        try (InputStream part = parts.open(upload, file.kind(), file.name())) {
            ByteStore.StoredBytes kept = bytes.keep(part, file.size(), changes.now());
            if (!kept.digest().equals(file.digest())) {
                parts.drop(upload, file.kind(), file.name());
                throw Refusal.unprocessable("Other bytes",
                        file.name() + " was announced as sha256:" + file.digest() + ", and what arrived is sha256:"
                                + kept.digest() + ". What arrived is discarded: send it again");
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        changes.run(() -> {
            bytes.refer(file.digest(), "upload", upload);
            mapper.complete(upload, file.kind(), file.name());
        });
        parts.drop(upload, file.kind(), file.name());
    }

    /** What nobody goes on with is forgotten after two days. */
    @Scheduled(fixedDelay = 600_000)
    void forget() {
        for (long id : mapper.forgotten(changes.now().minus(FORGOTTEN))) {
            long component = mapper.byId(id).orElseThrow().componentId();
            mapper.files(id).stream().filter(file -> !file.complete()).forEach(file -> {
                quotas.kept(component, -parts.length(id, file.kind(), file.name()));
                parts.drop(id, file.kind(), file.name());
            });
            mapper.dropFiles(id);
            mapper.end(id, "forgotten", changes.now());
        }
    }
}

package dev.paseo.service.bytes;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Bytes and the rows that refer to them: first the file is safe, then the row says so. */
@Component
public class KeptBytes {

    private final ByteStore store;
    private final ByteMapper mapper;

    KeptBytes(ByteStore store, ByteMapper mapper) {
        this.store = store;
        this.mapper = mapper;
    }

    public ByteStore.Kept keep(InputStream bytes, long mostBytes, Instant now) {
        try {
            ByteStore.Kept kept = store.keep(bytes, mostBytes);
            mapper.arrived(kept.digest(), kept.size(), now);
            return kept;
        } catch (IOException failed) {
            throw new UncheckedIOException("the bytes could not be kept: " + failed.getMessage(), failed);
        }
    }

    /** Says, in the transaction that needs them, who refers to these bytes. */
    public void refer(String digest, String ownerKind, long owner) {
        mapper.refer(digest, ownerKind, owner);
    }

    /** Whether something of this kind refers to these bytes. */
    public boolean referred(String digest, String ownerKind) {
        return mapper.referred(digest, ownerKind) > 0;
    }

    /** The file itself, to be read only, where the store is a folder. */
    public Optional<Path> file(String digest) {
        return store.file(digest);
    }

    /** For agents, which check every digest themselves. */
    public InputStream openUnchecked(String digest) {
        try {
            return store.openUnchecked(digest);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    public InputStream open(String digest) {
        try {
            return store.open(digest);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}

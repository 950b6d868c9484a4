package dev.paseo.service.bytes;

import dev.paseo.service.problem.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Bytes and the rows that refer to them: first the file is safe, then the row says so. */
@Component
public class KeptBytes {

    private static final int HELD = 1 << 16;

    private final ByteStore store;
    private final ByteMapper mapper;
    private final Damage damage;

    KeptBytes(ByteStore store, ByteMapper mapper, Damage damage) {
        this.store = store;
        this.mapper = mapper;
        this.damage = damage;
    }

    public ByteStore.StoredBytes keep(InputStream bytes, long mostBytes, Instant now) {
        try {
            ByteStore.StoredBytes kept = store.keep(bytes, mostBytes);
            mapper.arrived(kept.digest(), kept.size(), now);
            damage.mended(kept.digest());
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

    /**
     * Copies the bytes of this digest. The last ones go out only when all of them were found right: whoever reads gets
     * the whole, or notices that it is cut short.
     */
    public void copy(String digest, OutputStream out) throws IOException {
        byte[] held = new byte[HELD];
        byte[] next = new byte[HELD];
        try (InputStream in = store.open(digest)) {
            int holding = in.readNBytes(held, 0, HELD);
            for (int read = in.readNBytes(next, 0, HELD); read > 0; read = in.readNBytes(next, 0, HELD)) {
                out.write(held, 0, holding);
                byte[] written = held;
                held = next;
                next = written;
                holding = read;
            }
            out.write(held, 0, holding);
        } catch (DamagedBytes damaged) {
            damage.found(damaged);
            throw Refusal.damaged("The kept bytes are damaged: wanted " + damaged.wanted() + ", found "
                    + damaged.found() + ". Administrators have been told.");
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

package dev.paseo.service.agent;

import dev.paseo.core.text.Size;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.BiConsumer;
import org.springframework.stereotype.Component;

/** Bytes that come and go under the lease of a piece of work, within what its component may keep. */
@Component
class LeaseBytes {

    /** The largest artifact, in bytes: 64 GB. */
    private static final long LARGEST = 64_000_000_000L;

    private final WorkBoard board;
    private final KeptBytes bytes;
    private final Quotas quotas;
    private final ServiceClock clock;

    LeaseBytes(WorkBoard board, KeptBytes bytes, Quotas quotas, ServiceClock clock) {
        this.board = board;
        this.bytes = bytes;
        this.quotas = quotas;
        this.clock = clock;
    }

    Optional<Path> file(String digest) {
        return bytes.file(digest);
    }

    InputStream open(String digest) {
        return bytes.openUnchecked(digest);
    }

    /** Takes bytes under a lease that must still be held when they have arrived. */
    ByteStore.StoredBytes take(String token, HttpServletRequest request,
            BiConsumer<Work, ByteStore.StoredBytes> then)
            throws IOException {
        long component = quotas.ofWork(board.held(token).id());
        if (request.getContentLengthLong() > LARGEST) {
            throw Refusal.tooLarge("At most " + Size.words(LARGEST) + " are accepted");
        }
        long room = quotas.room(component, request.getContentLengthLong());
        ByteStore.StoredBytes kept = bytes.keep(request.getInputStream(), Math.min(LARGEST, room),
                clock.now());
        then.accept(board.held(token), kept);
        quotas.kept(component, kept.size());
        return kept;
    }
}

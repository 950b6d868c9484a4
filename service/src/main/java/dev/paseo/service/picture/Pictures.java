package dev.paseo.service.picture;

import dev.paseo.core.text.Size;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Pictures that people give with a tick: PNG or JPEG, kept by their digest. */
@Component
public class Pictures {

    private static final int MOST_BYTES = 5_000_000;
    private static final String OWNER = "picture";
    private static final byte[] PNG = {(byte) 0x89, 'P', 'N', 'G'};
    private static final byte[] JPEG = {(byte) 0xff, (byte) 0xd8, (byte) 0xff};

    /** A picture and its media type. */
    record Picture(byte[] bytes, String type) {}

    private final KeptBytes bytes;
    private final ServiceClock clock;

    Pictures(KeptBytes bytes, ServiceClock clock) {
        this.bytes = bytes;
        this.clock = clock;
    }

    String keep(InputStream in, long by) throws IOException {
        byte[] picture = in.readNBytes(MOST_BYTES + 1);
        if (picture.length > MOST_BYTES) {
            throw Refusal.tooLarge("A picture has at most " + Size.words(MOST_BYTES));
        }
        if (type(picture).isEmpty()) {
            throw Refusal.invalid("", "A picture is a PNG or a JPEG file");
        }
        ByteStore.StoredBytes kept = bytes.keep(new ByteArrayInputStream(picture), MOST_BYTES, clock.now());
        bytes.refer(kept.digest(), OWNER, by);
        return kept.digest();
    }

    private static Optional<String> type(byte[] picture) {
        return begins(picture, PNG) ? Optional.of("image/png")
                : begins(picture, JPEG) ? Optional.of("image/jpeg") : Optional.empty();
    }

    private static boolean begins(byte[] picture, byte[] with) {
        return picture.length > with.length && Arrays.equals(Arrays.copyOf(picture, with.length), with);
    }

    Picture read(String digest) throws IOException {
        try (InputStream in = bytes.open(known(digest))) {
            byte[] picture = in.readNBytes(MOST_BYTES + 1);
            return new Picture(picture, type(picture).orElse("application/octet-stream"));
        }
    }

    /** The digest, where it is that of a picture that is kept. */
    public String known(String digest) {
        if (!bytes.referred(digest, OWNER)) {
            throw Refusal.notFound("There is no picture " + digest);
        }
        return digest;
    }
}

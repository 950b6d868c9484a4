package dev.paseo.service.pace;

import dev.paseo.core.pace.Summary.Sample;
import java.nio.ByteBuffer;

/**
 * What is added up of a lead time, as the database packs it: its column says how.
 *
 * @param day on which it went live, in UTC: since 1970-01-01
 */
record PackedLeadTime(long environment, long day, Sample sample) {

    /** The database counts days from the year 0 on. */
    private static final long EPOCH = 719_528;
    private static final int NEVER = -1;

    static PackedLeadTime of(byte[] packed) {
        ByteBuffer bytes = ByteBuffer.wrap(packed);
        long environment = bytes.getLong();
        long day = bytes.getInt() - EPOCH;
        int badFor = bytes.getInt();
        long[] parts = new long[bytes.remaining() / Integer.BYTES];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = Integer.toUnsignedLong(bytes.getInt());
        }
        return new PackedLeadTime(environment, day,
                new Sample(parts, badFor == NEVER ? -1 : Integer.toUnsignedLong(badFor)));
    }
}

package dev.paseo.service.bytes;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Optional;

/**
 * Where files are kept, named by the SHA-256 of their bytes, in lower-case hexadecimal. What arrives is streamed, and
 * is there whole and on disk, or not at all. A read fails at its end when the bytes are no longer those of the name.
 */
public interface ByteStore {

    /** A file that is kept; {@code size} in bytes. */
    record StoredBytes(String digest, long size) {}

    /** Keeps what the stream gives, at most {@code mostBytes} of it. */
    StoredBytes keep(InputStream bytes, long mostBytes) throws IOException;

    InputStream open(String digest) throws IOException;

    /** The same for a receiver that checks the digest itself: what is damaged arrives whole and is recognised there. */
    InputStream openUnchecked(String digest) throws IOException;

    /** The file itself, where the store is a folder; whoever sends it reads it only. Empty where it is elsewhere. */
    Optional<Path> file(String digest);

    /** A place on the same disk for work in progress. */
    Path scratch() throws IOException;
}

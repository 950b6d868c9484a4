package dev.paseo.service.comparison;

import dev.paseo.api.archive.TarReader;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.bytes.KeptBytes;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.springframework.stereotype.Component;

/** The files that recipes bring, each with its SHA-256. Bundles never change: what was read is remembered. */
@Component
class BundleFiles {

    private static final int REMEMBERED = 200;

    private final KeptBytes bytes;
    private final Map<String, Map<String, String>> known = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Map<String, String>> eldest) {
            return size() > REMEMBERED;
        }
    };

    BundleFiles(KeptBytes bytes) {
        this.bytes = bytes;
    }

    Map<String, String> of(Optional<String> bundle) {
        if (bundle.isEmpty()) {
            return Map.of();
        }
        synchronized (known) {
            return known.computeIfAbsent(bundle.get(), this::read);
        }
    }

    private Map<String, String> read(String digest) {
        Map<String, String> files = new TreeMap<>();
        try (TarReader tar = new TarReader(bytes.openUnchecked(digest))) {
            for (Optional<TarArchiveEntry> next = tar.next(); next.isPresent(); next = tar.next()) {
                TarArchiveEntry entry = next.get();
                if (!entry.isDirectory() && !entry.isSymbolicLink()) {
                    MessageDigest sha256 = Sha256.digest();
                    tar.content().transferTo(new DigestOutputStream(OutputStream.nullOutputStream(), sha256));
                    files.put(entry.getName(), HexFormat.of().formatHex(sha256.digest()));
                }
            }
            return files;
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }
}

package dev.paseo.service.evidence;

import dev.paseo.api.archive.TarReader;
import dev.paseo.core.text.Size;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.problem.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Reads report files, in archives or one by one. */
@Component
class Reports {

    private static final long LARGEST_FILE = 256_000_000;
    private static final int MOST_FILES = 20_000;

    private final KeptBytes bytes;
    private final JsonMapper plain;

    Reports(KeptBytes bytes, JsonMapper plain) {
        this.bytes = bytes;
        this.plain = plain;
    }

    /**
     * Reads report files that came with a version from elsewhere; refused, with file and place, where one cannot be
     * read.
     */
    public Object read(String kind, String digest) {
        return read(kind, reader -> each(kind, digest, reader));
    }

    private Object read(String kind, Consumer<Consumer<InputStream>> files) {
        return switch (kind) {
            case Evidence.TESTS -> {
                TestReport report = new TestReport(Set.of());
                files.accept(file -> Xml.read(file, report));
                yield report.summary();
            }
            case Evidence.COVERAGE -> {
                CoverageReport report = new CoverageReport();
                files.accept(file -> Xml.read(file, report));
                yield report.summary();
            }
            case Evidence.FINDINGS -> {
                FindingsReport report = new FindingsReport(plain);
                files.accept(report::read);
                yield report.summary();
            }
            case Evidence.PARTS -> {
                PartsReport report = new PartsReport(plain);
                files.accept(report::read);
                yield report.parts();
            }
            default -> throw Refusal.invalid("/kind",
                    "There are reports of tests, coverage, findings and parts, not of " + kind);
        };
    }

    /** One file of a kind of report; refused, with the place, where it cannot be read. */
    public Object readFile(String kind, String digest) {
        return read(kind, reader -> {
            try (InputStream in = bytes.openUnchecked(digest)) {
                reader.accept(in);
            } catch (UnreadableReport wrong) {
                throw Refusal.unprocessable("A report cannot be read", kind + ": " + wrong.getMessage());
            } catch (IOException broken) {
                throw new UncheckedIOException(broken);
            }
        });
    }

    void each(String kind, String digest, Consumer<InputStream> reader) {
        int files = 0;
        try (TarReader tar = new TarReader(bytes.openUnchecked(digest))) {
            for (Optional<TarArchiveEntry> next = tar.next(); next.isPresent(); next = tar.next()) {
                if (++files > MOST_FILES) {
                    throw Refusal.unprocessable("A report cannot be read",
                            "reports " + kind + ": more than " + MOST_FILES + " files");
                }
                one(kind, next.get(), tar.content(), reader);
            }
        } catch (IOException broken) {
            throw Refusal.unprocessable("A report cannot be read",
                    "reports " + kind + ": the archive " + broken.getMessage());
        }
        if (files == 0) {
            throw Refusal.unprocessable("A report cannot be read", "reports " + kind + ": the archive holds no file");
        }
    }

    private static void one(String kind, TarArchiveEntry entry, InputStream file, Consumer<InputStream> reader) {
        try {
            if (entry.getSize() > LARGEST_FILE) {
                throw new UnreadableReport(
                        "has " + Size.words(entry.getSize()) + "; at most " + Size.words(LARGEST_FILE) + " are read");
            }
            reader.accept(file);
        } catch (UnreadableReport wrong) {
            String message = wrong.getMessage();
            String place = message.matches("[0-9]+:[0-9]+ .*") ? ":" : ": ";
            throw Refusal.unprocessable("A report cannot be read",
                    "reports " + kind + ": " + entry.getName() + place + message);
        }
    }
}

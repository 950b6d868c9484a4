package dev.paseo.service.witness;

import dev.paseo.core.text.Length;
import dev.paseo.service.clock.ServiceClock;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The file elsewhere that heads are written to. What could not be written is once it can. */
@Component
class HeadFile {

    private static final Logger LOG = LoggerFactory.getLogger(HeadFile.class);

    /** A share that takes longer is said to be in trouble. */
    private static final Duration PATIENCE = Duration.ofSeconds(10);

    private final ToldHeadMapper mapper;
    private final WitnessSettings settings;
    private final ServiceClock clock;
    private volatile Optional<String> trouble = Optional.empty();
    private volatile Optional<Instant> asked = Optional.empty();

    HeadFile(ToldHeadMapper mapper, WitnessSettings settings, ServiceClock clock) {
        this.mapper = mapper;
        this.settings = settings;
        this.clock = clock;
    }

    /** A head that was handed on: of so many entries, and when. */
    record HandedView(long size, Instant at) {

        static HandedView of(ToldHeadMapper.HandedRow row) {
            return new HandedView(row.size(), row.at());
        }
    }

    /**
     * A file elsewhere.
     *
     * @param path    on the service's machine, as it was set
     * @param written the newest head in it; absent: none was written
     * @param trouble why it cannot be written at the moment; what is due is written once it can
     */
    record HeadFileView(String path, Optional<HandedView> written, Optional<String> trouble) {}

    private Optional<Path> file() {
        return Optional.ofNullable(settings.file());
    }

    /** Writes what is not written yet, where there is a file. */
    void write() {
        file().ifPresent(this::write);
    }

    private void write(Path file) {
        try {
            for (ToldHeadMapper.LineRow row : mapper.unwritten()) {
                asked = Optional.of(clock.now());
                Files.writeString(file, (isCut(file) ? "\n" : "") + row.line() + "\n", StandardCharsets.UTF_8,
                        StandardOpenOption.CREATE,
                        StandardOpenOption.APPEND, StandardOpenOption.DSYNC);
                asked = Optional.empty();
                mapper.written(row.size(), clock.now());
            }
            trouble = Optional.empty();
        } catch (IOException failed) {
            if (trouble.isEmpty()) {
                LOG.warn("heads of the trail cannot be written to {}: {}", file, failed.toString());
            }
            trouble = Optional.of(failed.toString());
        } finally {
            asked = Optional.empty();
        }
    }

    private Optional<String> trouble() {
        return asked.map(since -> Duration.between(since, clock.now())).filter(since -> since.compareTo(PATIENCE) > 0)
                .map(since -> "it has not answered for " + Length.of(since)).or(() -> trouble);
    }

    /** Whether the last line has no end: the disk was full, or the machine went down. */
    private static boolean isCut(Path file) throws IOException {
        if (Files.notExists(file) || Files.size(file) == 0) {
            return false;
        }
        try (SeekableByteChannel channel = Files.newByteChannel(file)) {
            ByteBuffer last = ByteBuffer.allocate(1);
            channel.position(channel.size() - 1).read(last);
            return last.get(0) != '\n';
        }
    }

    Optional<HeadFileView> view() {
        return file().map(path -> new HeadFileView(path.toString(),
                mapper.newestWritten().map(HandedView::of), trouble()));
    }
}

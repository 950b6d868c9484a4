package dev.paseo.service.witness;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.TrailExport;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** With what tells heads and writes them, on the real database. */
class ToldHeadMapperTest {

    private static final Duration HOUR = Duration.ofHours(1);

    @TempDir
    Path folder;

    private final RealDatabase database = RealDatabase.get();
    private final ToldHeadMapper mapper = database.mapper(ToldHeadMapper.class);
    private final TrailExport trail = mock(TrailExport.class);
    private final Announcements announcements = mock(Announcements.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final HeadTelling telling = new HeadTelling(mapper, trail, announcements, database.transactions());

    @BeforeEach
    void threeHeads() {
        when(clock.now()).thenReturn(Rows.NOON);
        for (long size : List.of(3L, 5L, 8L)) {
            database.change("insert into tree_head (size, root, at, signature) values (?, '', '', '')", size);
        }
    }

    @AfterEach
    void none() {
        database.change("delete from told_head");
        database.change("delete from tree_head");
    }

    private static TrailExport.HeadView head(long size) {
        return new TrailExport.HeadView(size, "0".repeat(64), Rows.NOON, "AAAA", "key");
    }

    private void tell(long size, Instant now) {
        when(trail.newestHead()).thenReturn(Optional.of(head(size)));
        telling.tell(now, HOUR);
    }

    @Test
    void aHeadIsToldOnceAndTheNextWhenItIsTime() {
        assertEquals(Optional.empty(), telling.newest());
        tell(3, Rows.NOON);
        tell(5, Rows.NOON.plus(HOUR).minusMillis(1));
        assertEquals(3, telling.newest().orElseThrow().size());
        tell(5, Rows.NOON.plus(HOUR));
        tell(5, Rows.NOON.plus(HOUR.multipliedBy(3)));
        assertEquals(new HeadFile.HandedView(5, Rows.NOON.plus(HOUR)), telling.newest().orElseThrow());
        verify(announcements, times(2)).headSigned(any());
    }

    @Test
    void ofManyReplicasOneTellsIt() throws Exception {
        when(trail.newestHead()).thenReturn(Optional.of(head(8)));
        Callable<Boolean> one = () -> {
            telling.tell(Rows.NOON, HOUR);
            return true;
        };
        try (ExecutorService threads = Executors.newFixedThreadPool(8)) {
            for (Future<Boolean> each : threads.invokeAll(List.of(one, one, one, one, one, one, one, one))) {
                assertTrue(each.get());
            }
        }
        verify(announcements, times(1)).headSigned(any());
    }

    private HeadFile file(Path path) {
        return new HeadFile(mapper, new WitnessSettings(path, HOUR), clock);
    }

    @Test
    void whatCouldNotBeWrittenIsWrittenOnceItCan() throws IOException {
        Path elsewhere = folder.resolve("share/heads.jsonl");
        HeadFile file = file(elsewhere);
        tell(3, Rows.NOON);
        file.write();
        HeadFile.HeadFileView view = file.view().orElseThrow();
        assertEquals(elsewhere + " written: Optional.empty, trouble: true", view.path() + " written: " + view.written()
                + ", trouble: " + view.trouble().isPresent());
        tell(5, Rows.NOON.plus(HOUR));
        Files.createDirectory(elsewhere.getParent());
        file.write();
        file.write();
        assertEquals(List.of(head(3).line(), head(5).line()), Files.readAllLines(elsewhere));
        assertEquals(new HeadFile.HeadFileView(elsewhere.toString(),
                Optional.of(new HeadFile.HandedView(5, Rows.NOON)), Optional.empty()), file.view().orElseThrow());
    }

    @Test
    void aShareThatDoesNotAnswerIsToldAndWrittenToOnceItDoes() throws Exception {
        Path silent = folder.resolve("heads.pipe");
        assertEquals(0, new ProcessBuilder("mkfifo", silent.toString()).start().waitFor());
        HeadFile file = file(silent);
        tell(3, Rows.NOON);
        Thread writing = Thread.ofPlatform().daemon().start(file::write);
        verify(clock, timeout(30_000)).now();
        when(clock.now()).thenReturn(Rows.NOON.plusSeconds(11));
        while (file.view().orElseThrow().trouble().isEmpty()) {
            assertTrue(writing.isAlive());
        }
        assertEquals(Optional.of("it has not answered for 11 s"), file.view().orElseThrow().trouble());
        when(clock.now()).thenReturn(Rows.NOON.plusSeconds(10));
        assertEquals(Optional.empty(), file.view().orElseThrow().trouble());
        assertEquals(List.of(head(3).line()), Files.readAllLines(silent));
        writing.join();
        assertEquals(new HeadFile.HeadFileView(silent.toString(),
                Optional.of(new HeadFile.HandedView(3, Rows.NOON.plusSeconds(10))), Optional.empty()),
                file.view().orElseThrow());
    }

    @Test
    void aLineThatWasCutIsLeftBehind() throws IOException {
        Path elsewhere = folder.resolve("heads.jsonl");
        Files.writeString(elsewhere, "{\"head\":{\"at");
        tell(3, Rows.NOON);
        file(elsewhere).write();
        assertEquals(List.of("{\"head\":{\"at", head(3).line()), Files.readAllLines(elsewhere));
    }

    @Test
    void withoutAFileNothingIsWritten() {
        tell(3, Rows.NOON);
        HeadFile none = new HeadFile(mapper, new WitnessSettings(null, HOUR), clock);
        none.write();
        assertEquals(Optional.empty(), none.view());
        assertEquals(1, mapper.unwritten().size());
    }
}

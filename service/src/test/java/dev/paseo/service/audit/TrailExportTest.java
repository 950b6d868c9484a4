package dev.paseo.service.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Exported;
import dev.paseo.core.audit.MerkleTree;
import dev.paseo.core.audit.Proofs;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.service.audit.AuditMapper.HeadRow;
import dev.paseo.service.audit.AuditMapper.LeafRow;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.signature.ServiceKey;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The rows are made up here, since the trail of the tests' database is written by others as well. */
class TrailExportTest {

    private static final int SIZE = 12;
    private static final Instant NOON = Instant.parse("2026-11-23T12:00:00Z");

    @TempDir
    Path data;

    private final AuditMapper mapper = mock(AuditMapper.class);
    private final List<LeafRow> rows = new ArrayList<>();
    private final List<HeadRow> heads = new ArrayList<>();
    private TrailExport trail;

    @BeforeEach
    void twelveEntries() throws Exception {
        Settings settings = mock(Settings.class);
        when(settings.data()).thenReturn(data);
        SignedHeads key = new SignedHeads(settings, new ServiceKey(settings));
        MerkleTree tree = new MerkleTree();
        for (int position = 0; position < SIZE; position++) {
            byte[] leaf = MerkleTree.leafHash(body(position).getBytes(StandardCharsets.UTF_8));
            tree.add(leaf);
            rows.add(new LeafRow(position, HexFormat.of().formatHex(leaf), body(position)));
            TreeHead head = new TreeHead(tree.size(), HexFormat.of().formatHex(tree.root()), NOON);
            heads.add(new HeadRow(head.size(), head.root(), NOON.toString(), key.sign(head)));
        }
        when(mapper.leaves(anyLong())).thenAnswer(call -> rows.stream()
                .filter(row -> row.position() >= call.<Long>getArgument(0)).limit(5).toList());
        when(mapper.leafHashesAmong(anyLong(), anyLong())).thenAnswer(call -> rows.stream()
                .filter(row -> row.position() >= call.<Long>getArgument(0)
                        && row.position() < call.<Long>getArgument(1))
                .map(LeafRow::leafHash).toList());
        when(mapper.headsAmong(anyLong(), anyLong(), anyLong())).thenReturn(List.of(heads.get(7), heads.getLast()));
        when(mapper.newestHead()).thenReturn(Optional.of(heads.getLast()));
        trail = new TrailExport(mapper, key);
    }

    private static String body(int position) {
        return "{\"what\":\"done " + position + "\"}";
    }

    private ExportCheck.Checked taken(long from) throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        trail.write(trail.part(from), out);
        return ExportCheck.check(out.toString(StandardCharsets.UTF_8).lines().iterator(), Optional.of(trail.key()),
                List.of());
    }

    @Test
    void whatIsTrailExportVerifiesFromWhereverItBegins() throws Exception {
        for (long from : new long[]{0, 1, 5, 7}) {
            ExportCheck.Checked checked = taken(from);
            assertEquals(List.of(), checked.findings(), "from " + from);
            assertEquals(SIZE - from, checked.entries());
        }
    }

    @Test
    void whatIsMissingInTheDatabaseIsMissingInWhatIsTrailExport() throws Exception {
        LeafRow row = rows.get(6);
        rows.set(6, new LeafRow(row.position(), row.leafHash(), null));
        assertEquals(List.of("it is cut short behind entry 5: its last line is missing"), taken(0).findings());
        rows.remove(6);
        assertEquals(List.of("it is cut short behind entry 5: its last line is missing"), taken(0).findings());
    }

    @Test
    void entriesAndEarlierHeadsAreProved() {
        TreeHead head = trail.head().head();
        List<byte[]> path = trail.inclusion(4, head).stream().map(HexFormat.of()::parseHex).toList();
        assertTrue(Proofs.includes(MerkleTree.leafHash(body(4).getBytes(StandardCharsets.UTF_8)), 4, SIZE, path,
                HexFormat.of().parseHex(head.root())));
        List<byte[]> on = trail.consistency(7, head).stream().map(HexFormat.of()::parseHex).toList();
        assertTrue(Proofs.isConsistent(7, HexFormat.of().parseHex(heads.get(6).root()), SIZE,
                HexFormat.of().parseHex(head.root()), on));
    }

    @Test
    void whatIsNotThereIsRefused() {
        TreeHead head = trail.head().head();
        assertEquals("No signed head covers entry 12 yet; try again",
                Refused.by(Kind.CONFLICT, () -> trail.inclusion(SIZE, head)));
        assertEquals("should be a size from 1 to 12; got 0",
                Refused.by(Kind.INVALID, () -> trail.consistency(0, head)));
        assertEquals("should be a position from 0 to 12; got 13", Refused.by(Kind.INVALID, () -> trail.part(13)));
        when(mapper.newestHead()).thenReturn(Optional.empty());
        assertEquals("Nothing is in the audit trail yet", Refused.by(Kind.CONFLICT, () -> trail.head()));
        assertEquals(new TrailExport.Part(0, 0), trail.part(0));
    }

    @Test
    void aSecondIsThePositionOfItsFirstEntry() {
        when(mapper.firstSince("2026-11-23T12:00:00")).thenReturn(Optional.of(3L));
        assertEquals(3, trail.firstSince("2026-11-23T12:00:00"));
        assertEquals(SIZE, trail.firstSince("2026-11-24T12:00:00"), "there is none yet: the next one");
        assertEquals(Exported.Head.class, trail.head().getClass());
    }
}

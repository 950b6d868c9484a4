package dev.paseo.service.piece;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.junit.jupiter.api.Test;

class PieceMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final PieceMapper mapper = database.mapper(PieceMapper.class);
    private final Rows rows = database.rows();
    private final long pieces = rows.component();
    private final long version = rows.version(pieces, rows.line(pieces), 1);
    private final long user = rows.component();

    private void use(long file, int position, String wanted) {
        database.insert("insert into piece_use (file_id, position, place, piece, component_id, named, wanted, "
                + "version_id, digest) values (?, ?, 'stages', 'times', ?, 'park', ?, ?, repeat('0', 64))", file,
                position, pieces, wanted, version);
    }

    @Test
    void usesOfAMainBranchSayWhetherThePieceIsStillOpened() {
        use(rows.fileOfMain(user, "like"), 1, "2.*");
        assertEquals(List.of(false), mapper.uses(pieces).stream().map(PieceMapper.UseRow::opened).toList());
        rows.open(user, pieces);
        PieceMapper.UseRow row = mapper.uses(pieces).getFirst();
        assertTrue(row.opened());
        assertEquals("2.*", row.wanted());
        assertEquals(database.name("component", user), row.component());
    }

    @Test
    void whatAPieceUsesOfItsOwnFileAndWhoIsRetiredIsNoUse() {
        long file = rows.fileOfMain(user, "like");
        use(file, 1, "the same");
        assertEquals(List.of(), mapper.uses(pieces));
        use(file, 2, "newest");
        assertEquals(1, mapper.uses(pieces).size());
        rows.retire(user);
        assertEquals(List.of(), mapper.uses(pieces));
    }

    @Test
    void aFileThatNamesPiecesAndHasNoneIsLost() {
        rows.fileOfMain(user, "stages: {like: {piece: times}}");
        rows.fileOfMain(rows.component(), "stages: {build: {}}");
        List<Long> lost = mapper.lost().stream().map(PieceMapper.LostRow::componentId).toList();
        assertTrue(lost.contains(user), lost::toString);
        database.change("update pipeline_file set pieces = repeat('0', 64) where component_id = ?", user);
        assertTrue(mapper.lost().stream().noneMatch(row -> row.componentId() == user));
    }
}

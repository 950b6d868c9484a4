package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Exported;
import dev.paseo.core.audit.MerkleTree;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.signature.SigningPair;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What no service would write: the key that was renewed signs on. */
class StrangerTest {

    private static final Instant EVENING = Instant.parse("2026-11-23T18:00:00Z");
    private static final String BODY = "{\"what\":\"held\"}";

    private static List<String> export(SigningPair before, SigningPair after, Instant signed) {
        MerkleTree tree = new MerkleTree();
        byte[] leaf = MerkleTree.leafHash(BODY.getBytes(StandardCharsets.UTF_8));
        tree.add(leaf);
        TreeHead head = new TreeHead(1, HexFormat.of().formatHex(tree.root()), signed);
        return List.of(new Exported.Start(0, List.of(), before.text()).line(),
                new Exported.Renewed(before.renewedBy(after, EVENING)).line(),
                new Exported.Entry(BODY, HexFormat.of().formatHex(leaf), 0).line(),
                new Exported.Head(head, before.sign(head.bytes())).line(), new Exported.End(1).line());
    }

    @Test
    void aKeyThatWasRenewedSignsNothingMore(@TempDir Path folder) throws Exception {
        SigningPair before = SigningPair.fresh();
        SigningPair after = SigningPair.fresh();
        for (int late : List.of(0, 60, 61, 3600)) {
            List<String> lines = export(before, after, EVENING.plusSeconds(late));
            boolean good = ExportCheck.check(lines.iterator(), Optional.empty(), List.of()).findings().isEmpty();
            assertEquals(late <= 60, good, "after " + late + " s");
            assertEquals(good ? "good: 1 entries" : "wrong at the head of 1 entries (line 4)",
                    Stranger.verifies(Files.write(folder.resolve("trail.jsonl"), lines)));
        }
    }
}

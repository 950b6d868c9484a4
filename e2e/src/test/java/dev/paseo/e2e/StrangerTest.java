package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Exported;
import dev.paseo.core.audit.MerkleTree;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.signature.KeyRing.Renewal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.Signature;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What no service would write: the key that was renewed signs on. */
class StrangerTest {

    private static final Instant EVENING = Instant.parse("2026-11-23T18:00:00Z");
    private static final String BODY = "{\"what\":\"held\"}";

    private static String text(KeyPair pair) {
        return Base64.getEncoder().encodeToString(pair.getPublic().getEncoded());
    }

    private static String signed(KeyPair pair, byte[] bytes) throws GeneralSecurityException {
        Signature signature = Signature.getInstance("Ed25519");
        signature.initSign(pair.getPrivate());
        signature.update(bytes);
        return Base64.getEncoder().encodeToString(signature.sign());
    }

    private static List<String> export(KeyPair before, KeyPair after, Instant signed)
            throws GeneralSecurityException {
        MerkleTree tree = new MerkleTree();
        byte[] leaf = MerkleTree.leafHash(BODY.getBytes(StandardCharsets.UTF_8));
        tree.add(leaf);
        TreeHead head = new TreeHead(1, HexFormat.of().formatHex(tree.root()), signed);
        return List.of(new Exported.Start(0, List.of(), text(before)).line(),
                new Exported.Renewed(new Renewal(text(after), EVENING,
                        signed(before, Renewal.bytes(text(before), text(after), EVENING)))).line(),
                new Exported.Entry(BODY, HexFormat.of().formatHex(leaf), 0).line(),
                new Exported.Head(head, signed(before, head.bytes())).line(), new Exported.End(1).line());
    }

    @Test
    void aKeyThatWasRenewedSignsNothingMore(@TempDir Path folder) throws Exception {
        KeyPairGenerator pairs = KeyPairGenerator.getInstance("Ed25519");
        KeyPair before = pairs.generateKeyPair();
        KeyPair after = pairs.generateKeyPair();
        for (int late : List.of(0, 60, 61, 3600)) {
            List<String> lines = export(before, after, EVENING.plusSeconds(late));
            boolean good = ExportCheck.check(lines.iterator(), Optional.empty(), List.of()).findings().isEmpty();
            assertEquals(late <= 60, good, "after " + late + " s");
            assertEquals(good ? "good: 1 entries" : "wrong at the head of 1 entries (line 4)",
                    Stranger.verifies(Files.write(folder.resolve("trail.jsonl"), lines)));
        }
    }
}

package dev.paseo.service.audit;

import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.signature.ServiceKey;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import org.springframework.stereotype.Component;

/** Signs tree heads, and keeps them in a file too, which lies outside the database as the key does. */
@Component
class SignedHeads {

    private final ServiceKey key;
    private final Path file;

    SignedHeads(Settings settings, ServiceKey key) {
        this.key = key;
        this.file = settings.data().resolve("audit-heads.txt");
    }

    String sign(TreeHead head) {
        return key.sign(head.bytes());
    }

    boolean good(TreeHead head, String signed) {
        return key.ring().good(head.bytes(), head.at(), signed);
    }

    /** The public keys. */
    KeyRing ring() {
        return key.ring();
    }

    void append(TreeHead head, String signature) throws IOException {
        Files.writeString(file, head.size() + " " + head.root() + " " + head.at() + " " + signature + "\n",
                StandardCharsets.UTF_8, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    }

    List<String> lines() throws IOException {
        return Files.exists(file) ? Files.readAllLines(file) : List.of();
    }
}

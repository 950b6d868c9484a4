package dev.paseo.agent.ssh;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.api.agent.Assignment;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import org.apache.sshd.common.keyprovider.FileKeyPairProvider;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.auth.pubkey.AcceptAllPublickeyAuthenticator;
import org.apache.sshd.server.shell.ProcessShellCommandFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A host over SSH, on loopback, that says too much or shows another key. */
class SshHostTest {

    private static final int MOST = 1_000_000;

    @TempDir
    private Path folder;
    private SshServer server;
    private String hostKey;

    @BeforeEach
    void start() throws Exception {
        hostKey = key("host");
        key("client");
        server = SshServer.setUpDefaultServer();
        server.setHost("127.0.0.1");
        server.setPort(0);
        server.setKeyPairProvider(new FileKeyPairProvider(folder.resolve("host")));
        server.setPublickeyAuthenticator(AcceptAllPublickeyAuthenticator.INSTANCE);
        server.setCommandFactory(ProcessShellCommandFactory.INSTANCE);
        server.start();
    }

    @AfterEach
    void stop() throws Exception {
        server.stop(true);
    }

    /** Its public half. */
    private String key(String name) throws Exception {
        new ProcessBuilder("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", folder.resolve(name).toString())
                .inheritIO().start().waitFor();
        return Files.readString(folder.resolve(name + ".pub")).strip();
    }

    private SshHost connect(String pinned) throws Exception {
        return SshHost.connect(new Assignment.Ssh("127.0.0.1", server.getPort(), "works",
                Files.readString(folder.resolve("client")), pinned, "/srv/board"));
    }

    @Test
    void whatItSaysBeyondAMegabyteIsNotKept() throws Exception {
        try (SshHost host = connect(hostKey)) {
            SshHost.Said said = host.exec("head -c 3000000 /dev/zero | tr '\\0' x", Duration.ofSeconds(30));
            assertEquals(0, said.status());
            assertEquals(MOST, said.output().length());
        }
    }

    @Test
    void aHostWithAnotherKeyIsNotTalkedTo() throws Exception {
        String other = key("other");
        String why = assertThrows(SshHost.OtherKey.class, () -> connect(other)).getMessage();
        assertTrue(why.endsWith("nothing was sent to it"), why);
    }
}

package dev.paseo.agent.ssh;

import dev.paseo.api.agent.Assignment;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.PublicKey;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.client.channel.ClientChannelEvent;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.config.keys.AuthorizedKeyEntry;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.PublicKeyEntryResolver;
import org.apache.sshd.common.util.security.SecurityUtils;
import org.apache.sshd.sftp.client.SftpClient;
import org.apache.sshd.sftp.client.SftpClientFactory;

/** A connection to a host, which must show the key that was pinned for it. */
public final class SshHost implements AutoCloseable {

    private static final Duration PATIENCE = Duration.ofSeconds(15);
    private static final int MOST_ANSWER = 1_000_000;

    private final SshClient client;
    private final ClientSession session;
    private final String folder;

    private SshHost(SshClient client, ClientSession session, String folder) {
        this.client = client;
        this.session = session;
        this.folder = folder;
    }

    /** The host showed another key than the pinned one: nobody goes on by himself from here. */
    public static final class OtherKey extends IOException {
        OtherKey(String message) {
            super(message);
        }
    }

    public static SshHost connect(Assignment.Ssh ssh) throws IOException {
        SshClient client = SshClient.setUpDefaultClient();
        String[] shown = new String[1];
        PublicKey pinned = pinned(ssh);
        client.setServerKeyVerifier((session, address, key) -> {
            boolean same = KeyUtils.compareKeys(pinned, key);
            shown[0] = same ? null : KeyUtils.getFingerPrint(key);
            return same;
        });
        client.start();
        try {
            ClientSession session = client.connect(ssh.user(), ssh.address(), ssh.port()).verify(PATIENCE).getSession();
            session.addPublicKeyIdentity(key(ssh));
            session.auth().verify(PATIENCE);
            SshHost host = new SshHost(client, session, "");
            return new SshHost(client, session, ssh.folder().startsWith("~/")
                    ? host.run("printf %s \"$HOME\"") + ssh.folder().substring(1) : ssh.folder());
        } catch (IOException failed) {
            client.stop();
            if (shown[0] != null) {
                throw new OtherKey(ssh.address() + ":" + ssh.port() + " shows another host key than the pinned one, "
                        + shown[0] + ": nothing was sent to it");
            }
            throw new IOException(
                    ssh.user() + "@" + ssh.address() + ":" + ssh.port() + " cannot be reached: " + failed.getMessage(),
                    failed);
        }
    }

    private static PublicKey pinned(Assignment.Ssh ssh) throws IOException {
        try {
            return AuthorizedKeyEntry.parseAuthorizedKeyEntry(ssh.hostKey()).resolvePublicKey(null,
                    PublicKeyEntryResolver.IGNORING);
        } catch (GeneralSecurityException | IllegalArgumentException unreadable) {
            throw new OtherKey(
                    "the host key that is pinned for " + ssh.address() + " cannot be read: " + unreadable.getMessage());
        }
    }

    private static KeyPair key(Assignment.Ssh ssh) throws IOException {
        try (InputStream in = new ByteArrayInputStream(ssh.privateKey().getBytes(StandardCharsets.UTF_8))) {
            Iterable<KeyPair> pairs = SecurityUtils.loadKeyPairIdentities(null, () -> "the secret with the private key",
                    in, null);
            if (pairs != null) {
                for (KeyPair pair : pairs) {
                    return pair;
                }
            }
        } catch (GeneralSecurityException | RuntimeException unreadable) {
            throw new IOException("the private key for " + ssh.address() + " cannot be read", unreadable);
        }
        throw new IOException("there is no private key for " + ssh.address() + ": is its secret set?");
    }

    /** Where recipes work on it. */
    public String folder() {
        return folder;
    }

    /** How a command ended, and what it said. */
    public record Said(int status, String output) {}

    /** Runs a short command. */
    public Said exec(String command, Duration most) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream() {
            @Override
            public synchronized void write(byte[] bytes, int from, int length) {
                super.write(bytes, from, Math.min(length, Math.max(0, MOST_ANSWER - count)));
            }
        };
        try (ChannelExec channel = session.createExecChannel(command)) {
            channel.setOut(out);
            channel.setErr(out);
            channel.open().verify(PATIENCE);
            if (channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), most).contains(ClientChannelEvent.TIMEOUT)) {
                throw new IOException("the host did not answer within " + most.toSeconds() + " s");
            }
            return new Said(Optional.ofNullable(channel.getExitStatus()).orElse(-1),
                    out.toString(StandardCharsets.UTF_8));
        }
    }

    /** Runs a short command that must end well; what it said. */
    String run(String command) throws IOException {
        Said said = exec(command, PATIENCE);
        if (said.status() != 0) {
            throw new IOException("the host answered with exit status " + said.status() + ": " + said.output().strip());
        }
        return said.output();
    }

    /**
     * Copies a tree, files with their permissions; what the host has there afterwards is compared by the caller's
     * digests.
     */
    void copy(Path tree, String to) throws IOException {
        try (SftpClient sftp = SftpClientFactory.instance().createSftpClient(session);
                Stream<Path> paths = Files.walk(tree)) {
            List<Path> all = paths.sorted().toList();
            for (Path path : all) {
                String target = path.equals(tree) ? to : to + "/" + tree.relativize(path);
                if (Files.isDirectory(path)) {
                    run("mkdir -p " + quote(target));
                } else if (Files.isRegularFile(path)) {
                    try (var out = sftp.write(target, 256 * 1024)) {
                        Files.copy(path, out);
                    }
                    sftp.setStat(target, new SftpClient.Attributes().perms(Files.isExecutable(path) ? 0700 : 0600));
                }
            }
        }
    }

    /** Writes a file that only the user can read. */
    void write(String path, String text) throws IOException {
        try (SftpClient sftp = SftpClientFactory.instance().createSftpClient(session)) {
            try (SftpClient.CloseableHandle handle = sftp.open(path,
                    EnumSet.of(SftpClient.OpenMode.Write, SftpClient.OpenMode.Create, SftpClient.OpenMode.Truncate))) {
                sftp.setStat(handle, new SftpClient.Attributes().perms(0600));
                byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
                sftp.write(handle, 0, bytes, 0, bytes.length);
            }
        }
    }

    /** What a file has from this position on, at most 256 kB; empty where there is none. */
    byte[] read(String path, long from) throws IOException {
        try (SftpClient sftp = SftpClientFactory.instance().createSftpClient(session);
                SftpClient.CloseableHandle handle = sftp.open(path, EnumSet.of(SftpClient.OpenMode.Read))) {
            byte[] block = new byte[256 * 1024];
            int count = sftp.read(handle, from, block);
            return count <= 0 ? new byte[0] : java.util.Arrays.copyOf(block, count);
        }
    }

    static String quote(String text) {
        return "'" + text.replace("'", "'\\''") + "'";
    }

    @Override
    public void close() {
        try {
            session.close();
        } catch (IOException lost) {
            // It was going away anyway.
        } finally {
            client.stop();
        }
    }
}

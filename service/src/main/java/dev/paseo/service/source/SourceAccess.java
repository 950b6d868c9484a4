package dev.paseo.service.source;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import jakarta.validation.constraints.Size;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * How a repository is reached, beside its address. What is secret goes to git by its environment and by files that only
 * this user reads and that are gone when git is.
 *
 * @param name      for https: the account
 * @param password  for https: its password or token
 * @param authority for https: certificates, in PEM, that are trusted instead of the machine's
 * @param key       for ssh: the private key
 * @param hostKeys  for ssh: lines of a known_hosts file; no other key of the host is accepted
 */
public record SourceAccess(Optional<String> name, Optional<String> password,
        @Size(max = 200_000) Optional<String> authority, @Size(max = 16_000) Optional<String> key,
        @Size(max = 16_000) Optional<String> hostKeys) {

    public static final SourceAccess NONE = new SourceAccess(Optional.empty(), Optional.empty(), Optional.empty(),
            Optional.empty(), Optional.empty());

    /** Only the key and the host keys that were given count; nothing is asked, and nobody is waited for. */
    private static final String SSH = "ssh -F /dev/null -o BatchMode=yes -o StrictHostKeyChecking=yes"
            + " -o UpdateHostKeys=no -o GlobalKnownHostsFile=/dev/null -o ConnectTimeout=15 -o ServerAliveInterval=10"
            + " -o ServerAliveCountMax=2 -o IdentitiesOnly=yes -o ForwardAgent=no";
    private static final Pattern PRIVATE_KEY = Pattern
            .compile("-----BEGIN [A-Z ]*PRIVATE KEY-----[A-Za-z0-9+/=\\s]+-----END [A-Z ]*PRIVATE KEY-----\\s*");
    private static final Pattern HOST_KEYS = Pattern.compile(
            "([^\\s|@#-][^\\s]* (ssh-ed25519|ssh-rsa|ecdsa-sha2-nistp(256|384|521)) [A-Za-z0-9+/=]+( [^\\n]*)?\\n?)+");
    private static final Set<PosixFilePermission> OURS = PosixFilePermissions.fromString("rw-------");

    /** Refuses what cannot be right for this address. */
    public void check(String repository) {
        if (repository.startsWith("ssh://")) {
            if (key.filter(text -> PRIVATE_KEY.matcher(text).matches()).isEmpty()) {
                throw Refusal.invalid("/credentials/key",
                        "An ssh repository needs a private key in PEM without a passphrase");
            }
            if (hostKeys.filter(text -> HOST_KEYS.matcher(text).matches()).isEmpty()) {
                throw Refusal.invalid("/credentials/hostKeys",
                        "Name the host's key, as a line of known_hosts: the host, the kind, the key. "
                                + "ssh-keyscan prints it; compare it with what the host's operator says");
            }
        } else if (key.isPresent() || hostKeys.isPresent()) {
            throw Refusal.invalid("/credentials", "A key and host keys are for ssh:// repositories");
        }
        if (!repository.startsWith("https://") && (name.isPresent() || password.isPresent() || authority.isPresent())) {
            throw Refusal.invalid("/credentials", "A name, a password and an authority are for https:// repositories");
        }
        authority.ifPresent(SourceAccess::checkAuthority);
        if (name.filter(text -> text.contains(":") || text.contains("\n")).isPresent()
                || password.filter(text -> text.contains("\n")).isPresent()) {
            throw Refusal.invalid("/credentials",
                    "A name has no colon, and neither it nor the password has a line break");
        }
    }

    private static void checkAuthority(String text) {
        try {
            if (CertificateFactory.getInstance("X.509")
                    .generateCertificates(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8))).isEmpty()) {
                throw new CertificateException("none");
            }
        } catch (CertificateException unreadable) {
            throw Refusal.invalid("/credentials/authority", "should be certificates in PEM");
        }
    }

    /**
     * Does something with git's environment for this repository.
     *
     * @param pinned the addresses that its host stands for, which git takes instead of asking for them itself; none:
     *               git asks
     */
    <T> T with(Optional<String> pinned, Function<Map<String, String>, T> use) {
        Map<String, String> environment = new LinkedHashMap<>();
        @Nullable
        Path folder = null;
        try {
            if (key.isPresent() || authority.isPresent()) {
                folder = Files.createTempDirectory("paseo-source",
                        PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
            }
            if (key.isPresent()) {
                environment.put("GIT_SSH_COMMAND", SSH + " -o UserKnownHostsFile='"
                        + write(folder, "hosts", hostKeys.orElse("") + "\n") + "' -i '"
                        + write(folder, "key", key.get() + "\n") + "'");
                environment.put("GIT_SSH_VARIANT", "ssh");
            }
            Map<String, String> settings = new LinkedHashMap<>();
            if (authority.isPresent()) {
                settings.put("http.sslCAInfo", write(folder, "authority", authority.get()).toString());
            }
            password.ifPresent(word -> settings.put("http.extraHeader", "Authorization: Basic "
                    + Base64.getEncoder()
                            .encodeToString((name.orElse("") + ":" + word).getBytes(StandardCharsets.UTF_8))));
            pinned.ifPresent(addresses -> settings.put("http.curloptResolve", addresses));
            int at = 0;
            for (Map.Entry<String, String> setting : settings.entrySet()) {
                environment.put("GIT_CONFIG_KEY_" + at, setting.getKey());
                environment.put("GIT_CONFIG_VALUE_" + at++, setting.getValue());
            }
            environment.put("GIT_CONFIG_COUNT", Integer.toString(at));
            return use.apply(environment);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } finally {
            remove(folder);
        }
    }

    private static Path write(Path folder, String name, String text) throws IOException {
        Path file = Files.createFile(folder.resolve(name), PosixFilePermissions.asFileAttribute(OURS));
        return Files.writeString(file, text);
    }

    private static void remove(@Nullable Path folder) {
        if (folder == null) {
            return;
        }
        try {
            for (String name : new String[]{"hosts", "key", "authority"}) {
                Files.deleteIfExists(folder.resolve(name));
            }
            Files.delete(folder);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private static final Pattern ADDRESS = Pattern.compile(
            "(https://|ssh://([A-Za-z0-9][A-Za-z0-9._-]*@)?)[A-Za-z0-9][A-Za-z0-9.-]*(:[0-9]{1,5}"
                    + ")?(/[A-Za-z0-9._~-]+)+/?");

    /** Refuses a folder that is not where components may come from, links resolved; and an address of no right form. */
    static void allow(Settings settings, String repository) {
        if (repository.startsWith("file:///")) {
            allowFolder(settings, repository);
            return;
        }
        if (!ADDRESS.matcher(repository).matches() || repository.contains("/../") || repository.endsWith("/..")
                || repository.contains("/./")) {
            throw Refusal.invalid("/repository",
                    "A repository is given as file:///path, https://host/path or ssh://user@host/path; got “"
                            + repository + "”");
        }
    }

    private static void allowFolder(Settings settings, String repository) {
        try {
            Path real = Path.of(URI.create(repository)).toRealPath();
            for (String allowed : settings.allowedSources()) {
                if (!allowed.contains("://") && Files.isDirectory(Path.of(allowed))
                        && real.startsWith(Path.of(allowed).toRealPath())) {
                    return;
                }
            }
        } catch (IOException | IllegalArgumentException missing) {
            throw Refusal.invalid("/repository", "There is no folder " + repository);
        }
        throw notAllowed(settings, repository);
    }

    private static Refusal notAllowed(Settings settings, String repository) {
        List<String> allowed = settings.allowedSources().stream()
                .map(place -> place.contains("://") ? place : "file://" + Path.of(place).toAbsolutePath()).toList();
        return Refusal.notAllowed(repository + " is not below a place from which components may come"
                + (allowed.isEmpty() ? "" : ", which are " + String.join(", ", allowed))
                + "; an operator sets the places in paseo.allowed-sources");
    }
}

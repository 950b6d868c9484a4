package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/** What a repository is read with, where it needs that. */
final class CredentialOptions {

    @Option(names = "--account", paramLabel = "NAME",
            description = "for https; the password or token is read from standard input")
    private Optional<String> account = Optional.empty();

    @Option(names = "--authority", paramLabel = "FILE",
            description = "for https: certificates, in PEM, to trust instead of the machine's")
    private Optional<Path> authority = Optional.empty();

    @Option(names = "--key", paramLabel = "FILE", description = "for ssh: the private key")
    private Optional<Path> key = Optional.empty();

    @Option(names = "--host-keys", paramLabel = "FILE",
            description = "for ssh: the host's keys, as lines of known_hosts; no other is accepted")
    private Optional<Path> hostKeys = Optional.empty();

    private boolean given() {
        return account.isPresent() || authority.isPresent() || key.isPresent() || hostKeys.isPresent();
    }

    /** Adds what was given to a request. */
    void into(ObjectNode request, Context context) {
        if (!given()) {
            return;
        }
        ObjectNode credentials = request.putObject("credentials");
        account.ifPresent(name -> credentials.put("name", name).put("password", SourceCommands.secret(context)));
        authority.ifPresent(file -> credentials.put("authority", SourceCommands.read(file)));
        key.ifPresent(file -> credentials.put("key", SourceCommands.read(file)));
        hostKeys.ifPresent(file -> credentials.put("hostKeys", SourceCommands.read(file)));
    }
}

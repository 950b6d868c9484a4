package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Exported;
import dev.paseo.core.audit.MerkleTree;
import dev.paseo.core.audit.Proofs;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.signature.Ed25519;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** The trail taken away, and verified without the service. */
final class TrailCommands {

    private TrailCommands() {}

    /** Verifies a file of {@code paseo audit export}, reading it once. */
    static ExportCheck.Checked checked(Path file, Optional<String> key, List<Exported.Head> kept) {
        try (BufferedReader lines = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
            return ExportCheck.check(lines.lines().iterator(), key, kept);
        } catch (IOException | java.io.UncheckedIOException unread) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read as text: " + unread.getMessage());
        } catch (IllegalArgumentException noKey) {
            throw new Failure(Failure.Kind.USAGE, "The key that was given is none: " + noKey.getMessage());
        }
    }

    @Command(name = "head",
            description = "Prints the newest signed head of the audit trail, for keeping it elsewhere: paseo audit "
                    + "verify --head FILE holds the trail against it.",
            footer = {"", "Example:", "  paseo audit head > head.json"})
    static final class Head extends ServiceCommand {
        Head(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode head = api().get(Api.path("audit", "head"));
            return print(head, () -> context.out().println(exported(head).line()));
        }
    }

    @Command(name = "key",
            description = "Prints the service's public key (SubjectPublicKeyInfo, RFC 8410, in Base64), by which heads "
                    + "of the trail and statements are signed, for keeping it elsewhere.",
            footer = {"", "Example:", "  paseo audit key > key.txt"})
    static final class Key extends ServiceCommand {
        Key(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode head = api().get(Api.path("audit", "head"));
            return print(head, () -> context.out().println(head.path("key").asString()));
        }
    }

    /** A head as an export has it, of one that the service answered. */
    static Exported.Head exported(JsonNode head) {
        return new Exported.Head(new TreeHead(head.path("size").asLong(), head.path("root").asString(),
                Instant.parse(head.path("at").asString())), head.path("signature").asString());
    }

    /** The head that stands in a file, as {@code paseo audit head} writes it. */
    static Exported.Head head(Path file) {
        return Exported.read(text(file)).filter(Exported.Head.class::isInstance).map(Exported.Head.class::cast)
                .orElseThrow(() -> new Failure(Failure.Kind.USAGE,
                        file + " has no head in it, as paseo audit head writes one"));
    }

    static String text(Path file) {
        try {
            return Files.readString(file).strip();
        } catch (IOException unread) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read: " + unread.getMessage());
        }
    }

    /** Whether the service's trail continues what a head covers that was kept elsewhere; no trust in the service. */
    static Optional<String> broken(Api api, Exported.Head kept, Optional<String> key) {
        JsonNode proof = api.get(Api.path("audit", "consistency") + "?from=" + kept.head().size());
        Exported.Head now = exported(proof.path("head"));
        String by = key.orElse(proof.path("head").path("key").asString());
        if (!Ed25519.good(Ed25519.key(by), kept.head().bytes(), kept.signature())) {
            return Optional.of("the head that was kept is not signed by this key");
        }
        if (!Ed25519.good(Ed25519.key(by), now.head().bytes(), now.signature())) {
            return Optional.of("the newest head is not signed by this key");
        }
        return Proofs.isConsistent(kept.head().size(), bytes(kept.head().root()), now.head().size(),
                bytes(now.head().root()), path(proof)) ? Optional.empty()
                        : Optional.of("the trail does not continue the head of " + kept.head().size()
                                + " entries that was kept: one of them was changed, or it is of another trail");
    }

    private static byte[] bytes(String hexadecimal) {
        return HexFormat.of().parseHex(hexadecimal);
    }

    private static List<byte[]> path(JsonNode proof) {
        return proof.path("path").valueStream().map(hash -> bytes(hash.asString())).toList();
    }

    @Command(name = "show",
            description = "Prints an entry with all that it holds, and the proof that it is in the tree of the newest "
                    + "signed head (RFC 9162), which is checked here.",
            footer = {"", "Example:", "  paseo audit show 41"})
    static final class Show extends ServiceCommand {
        @Parameters(paramLabel = "POSITION")
        private long position;

        Show(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode proved = api().get(Api.path("audit", "entries", Long.toString(position)));
            JsonNode entry = proved.path("entry");
            Exported.Head head = exported(proved.path("head"));
            byte[] leaf = MerkleTree.leafHash(proved.path("body").asString().getBytes(StandardCharsets.UTF_8));
            boolean good = Proofs.includes(leaf, position, head.head().size(), path(proved),
                    bytes(head.head().root()))
                    && Ed25519.good(Ed25519.key(proved.path("head").path("key").asString()),
                            head.head().bytes(),
                            head.signature());
            print(proved, () -> {
                context.out().println(context.ink().strong(entry.path("who").asString() + ": "
                        + entry.path("what").asString() + ", " + entry.path("subject").asString())
                        + context.ink().quiet(", " + Times.exact(entry.path("at"))));
                line("where", entry.path("where").asString());
                line("because of", entry.path("because").asString());
                entry.path("details").properties().forEach(each -> line(each.getKey(), each.getValue().asString()));
                line("leaf", HexFormat.of().formatHex(leaf));
                proved.path("path").forEach(hash -> line("beside it", hash.asString()));
                line("root", head.head().root() + " of " + head.head().size() + " entries, signed "
                        + Times.exact(proved.path("head").path("at")));
                context.out().println(good ? context.ink().good("The path leads from the leaf to the signed root.")
                        : context.ink().bad("The path does not lead from the leaf to a signed root."));
            });
            return good ? 0 : 1;
        }

        private void line(String name, String value) {
            if (!value.isEmpty()) {
                context.out().println("  " + name + ": " + value);
            }
        }
    }
}

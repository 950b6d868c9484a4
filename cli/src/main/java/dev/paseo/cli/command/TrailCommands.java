package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Exported;
import dev.paseo.core.audit.MerkleTree;
import dev.paseo.core.audit.Proofs;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.core.signature.KeyRing;
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
                    + "of the trail and statements are signed, for keeping it elsewhere; where it was renewed, a line "
                    + "for each that took its place, with the signature by the one before.",
            footer = {"", "Example:", "  paseo audit key > key.txt"})
    static final class Key extends ServiceCommand {
        Key(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode keys = api().get(Api.path("audit", "keys"));
            return print(keys, () -> context.out().println(keys.path("text").asString()));
        }
    }

    @Command(name = "renew-key", description = {
            "Puts a new key in the place of the one by which heads of the trail and statements are signed.",
            "The old one signs the new one, and is gone then; what it signed stays good. Whoever kept the "
                    + "old one can still verify; give them the new one too: paseo "
                    + "audit key."},
            footer = {"", "Example:", "  paseo audit renew-key --reason 'as every year'"})
    static final class RenewKey extends ServiceCommand {
        @Option(names = "--reason", required = true, description = "why; it stands in the audit trail")
        private String reason = "";

        RenewKey(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode keys = api().post(Api.path("audit", "keys"), api().object().put("reason", reason));
            return print(keys, () -> {
                JsonNode last = keys.path("keys").path(keys.path("keys").size() - 1);
                context.out().println("New key " + last.path("sha256").asString() + ", in force since "
                        + Times.exact(last.path("since")) + ". Whoever keeps the keys needs it: paseo audit key");
            });
        }
    }

    @Command(name = "witnesses",
            description = "Prints who else keeps heads of the trail, and the newest that they were handed.",
            footer = {"", "Example:", "  paseo audit witnesses"})
    static final class WitnessList extends ServiceCommand {
        WitnessList(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode view = api().get(Api.path("audit", "witnesses"));
            return print(view, () -> {
                JsonNode file = view.path("file");
                Table table = new Table("KEPT BY", "ENTRIES", "SINCE", "");
                view.path("receivers").forEach(name -> table.row("the receiver " + name.asString(),
                        view.path("told").path("size").asString("-"), since(view.path("told")),
                        "what came: paseo receiver messages " + name.asString()));
                if (!file.isMissingNode()) {
                    table.row(file.path("path").asString(), file.path("written").path("size").asString("-"),
                            since(file.path("written")), file.has("trouble")
                                    ? context.ink().bad("cannot be written: ") + file.path("trouble").asString() : "");
                }
                if (view.path("receivers").isEmpty() && file.isMissingNode()) {
                    context.out().println("Nobody else keeps heads of the trail: paseo receiver add NAME --address URL "
                            + "--kind audit.head, or the setting paseo.heads.file");
                } else {
                    table.print(context.out(), context.ink());
                }
            });
        }

        private static String since(JsonNode handed) {
            return handed.isMissingNode() ? "-" : Times.exact(handed.path("at"));
        }
    }

    /** A head as an export has it, of one that the service answered. */
    static Exported.Head exported(JsonNode head) {
        return new Exported.Head(new TreeHead(head.path("size").asLong(), head.path("root").asString(),
                Instant.parse(head.path("at").asString())), head.path("signature").asString());
    }

    /** The heads that stand in a file, one a line, as {@code paseo audit head} and the service write them. */
    static List<Exported.Head> heads(Path file) {
        List<Exported.Head> heads = text(file).lines().flatMap(line -> Exported.read(line).stream())
                .filter(Exported.Head.class::isInstance).map(Exported.Head.class::cast).toList();
        if (heads.isEmpty()) {
            throw new Failure(Failure.Kind.USAGE, file + " has no head in it, as paseo audit head writes one");
        }
        return heads;
    }

    static String text(Path file) {
        try {
            return Files.readString(file).strip();
        } catch (IOException unread) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read: " + unread.getMessage());
        }
    }

    /** Whether the service's trail continues what a head covers that was kept elsewhere; no trust in the service. */
    static Optional<String> broken(Api api, Exported.Head kept, Optional<Path> key) {
        JsonNode proof = api.get(Api.path("audit", "consistency") + "?from=" + kept.head().size());
        Exported.Head now = exported(proof.path("head"));
        KeyRing named = KeyRing.of(proof.path("head").path("key").asString());
        KeyRing by = KeyRing.of(believed(named.text(), key));
        if (!isSigned(kept, named) && !isSigned(kept, by)) {
            return Optional.of("the head that was kept is not signed by this key");
        }
        if (!isSigned(now, by)) {
            return Optional.of("the newest head is not signed by this key");
        }
        return Proofs.isConsistent(kept.head().size(), bytes(kept.head().root()), now.head().size(),
                bytes(now.head().root()), path(proof)) ? Optional.empty()
                        : Optional.of("the trail does not continue the head of " + kept.head().size()
                                + " entries that was kept: one of them was changed, or it is of another trail");
    }

    /** What is believed of the keys that a service tells, as text. */
    static String believed(String told, Optional<Path> key) {
        try {
            return KeyRing.of(told).believed(key.map(TrailCommands::text).map(KeyRing::of)).text();
        } catch (IllegalArgumentException none) {
            throw new Failure(Failure.Kind.USAGE, "The key that was given is none: " + none.getMessage());
        }
    }

    private static boolean isSigned(Exported.Head head, KeyRing ring) {
        return ring.good(head.head().bytes(), head.head().at(), head.signature());
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
                    && isSigned(head, KeyRing.of(proved.path("head").path("key").asString()));
            print(proved, () -> {
                context.out().println(context.ink().strong(proved.path("sentence").asString())
                        + context.ink().quiet(", " + Times.exact(entry.path("at"))));
                line("who", entry.path("who").asString());
                line("what", entry.path("what").asString());
                line("subject", entry.path("subject").asString());
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

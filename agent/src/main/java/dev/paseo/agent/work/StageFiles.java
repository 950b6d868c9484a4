package dev.paseo.agent.work;

import dev.paseo.agent.lease.DigestedFile;
import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.agent.log.Masker;
import dev.paseo.agent.process.Spool;
import dev.paseo.api.agent.Assignment;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** The files of a stage beside its checkout: what it begins with, and what it leaves. */
final class StageFiles {

    private final Assignment.Stage stage;
    private final LeaseClient lease;
    private final Spool spool;
    private final Patience.WhileWanted wanted;
    private final Masker masker;

    /** @param masker hides secrets in reports, byte for byte */
    StageFiles(Assignment.Stage stage, LeaseClient lease, Spool spool, Patience.WhileWanted wanted, Masker masker) {
        this.masker = masker;
        this.wanted = wanted;
        this.stage = stage;
        this.lease = lease;
        this.spool = spool;
    }

    /** Brings what it begins with into the workspace, and says what came from where. */
    void fetch(StringBuilder words) throws IOException, InterruptedException {
        for (Assignment.Input input : stage.inputs()) {
            Path archive = spool.folder().resolve("arrived.tar");
            CannotGoOn.unlessSame("the files of " + input.stage(), input.digest(),
                    Patience.insist(() -> lease.bytes(input.digest(), archive), wanted));
            unpack(archive);
            words.append("\nfiles of ").append(input.stage());
        }
        for (Assignment.Take take : stage.takes()) {
            take(take);
            words.append("\ntook ").append(take.file().name()).append(" of ").append(take.component()).append(' ')
                    .append(take.version())
                    .append(" into ").append(take.into());
        }
        if (stage.reuse().isPresent()) {
            words.append("\nreuse: ").append(restore(stage.reuse().get()));
        }
    }

    private void unpack(Path archive) throws IOException {
        try (InputStream in = Files.newInputStream(archive)) {
            Archives.unpack(in, spool.workspace());
        }
        Files.delete(archive);
    }

    private void take(Assignment.Take take) throws IOException, InterruptedException {
        Path root = spool.workspace().toRealPath();
        Path target = Inside.file(root, take.into() + "/" + take.file().fileName());
        CannotGoOn.unlessSame(take.file().name() + " of " + take.component(), take.file().digest(),
                Patience.insist(() -> lease.bytes(take.file().digest(), target), wanted));
    }

    private String restore(Assignment.Reuse reuse) throws IOException, InterruptedException {
        String key = key(reuse);
        Files.writeString(spool.folder().resolve("reuse-key"), key);
        Path archive = spool.folder().resolve("arrived.tar");
        Optional<LeaseClient.Reused> found = Patience.insist(() -> reused(key, archive), wanted);
        if (found.isEmpty()) {
            return String.join(", ", reuse.folders()) + " begins empty";
        }
        unpack(archive);
        if (found.get().exact()) {
            Files.writeString(spool.folder().resolve("reuse-exact"), "");
        }
        return String.join(", ", reuse.folders())
                + (found.get().exact() ? " as kept by " : " in an older state, kept by ") + found.get().run();
    }

    private Optional<LeaseClient.Reused> reused(String key, Path archive) throws IOException, InterruptedException {
        Optional<LeaseClient.Reused> found = lease.reused(key);
        if (found.isPresent()) {
            try (InputStream bytes = found.get().bytes()) {
                CannotGoOn.unlessSame("what is reused", found.get().digest(), DigestedFile.write(bytes, archive));
            }
        }
        return found;
    }

    /** The digest of the names and contents of the files that the key's patterns match. */
    private String key(Assignment.Reuse reuse) throws IOException {
        MessageDigest digest = DigestedFile.sha256();
        for (Path file : Globs.find(spool.workspace(), reuse.key())) {
            digest.update((file + "\n").getBytes(StandardCharsets.UTF_8));
            Path path = spool.workspace().resolve(file);
            digest.update((Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS) ? Digests.of(path) : "no file")
                    .getBytes(StandardCharsets.UTF_8));
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    /** Leaves everything that the file names, once all steps have passed. */
    void leave(StringBuilder words) throws IOException, InterruptedException {
        for (Assignment.Report report : stage.reports()) {
            report(report, words);
        }
        if (!stage.files().isEmpty()) {
            Globs.Found found = Globs.look(spool.workspace(), stage.files());
            List<Path> files = found.files();
            words.append(found.words());
            if (files.isEmpty()) {
                throw new CannotGoOn(
                        "files: " + String.join(", ", stage.files()) + " matches no file of the workspace");
            }
            send("the files for later stages", "/files", spool.workspace(), files);
            words.append("left ").append(files.size()).append(files.size() == 1 ? " file" : " files")
                    .append(" for the stages after this one\n");
        }
        for (Assignment.Keep keep : stage.keep()) {
            keep(keep);
        }
        if (stage.reuse().isPresent() && !Files.exists(spool.folder().resolve("reuse-exact"))) {
            words.append(keepForReuse(stage.reuse().get())).append('\n');
        }
    }

    private void report(Assignment.Report report, StringBuilder words) throws IOException, InterruptedException {
        Globs.Found found = Globs.look(spool.workspace(), report.paths());
        List<Path> files = found.files();
        words.append(found.words());
        if (files.isEmpty()) {
            throw new CannotGoOn("reports " + report.kind() + ": " + String.join(", ", report.paths())
                    + " matches no file of the workspace");
        }
        send("the report of " + report.kind(), "/reports/" + report.kind(), masked(files), files);
    }

    /** Where the reports lie as they may be shown. */
    private Path masked(List<Path> files) throws IOException {
        if (masker.isEmpty()) {
            return spool.workspace();
        }
        Path shown = spool.folder().resolve("shown");
        for (Path file : files) {
            Path from = spool.workspace().resolve(file);
            Path to = shown.resolve(file);
            Files.createDirectories(to.getParent());
            if (Files.isSymbolicLink(from)) {
                Files.copy(from, to, LinkOption.NOFOLLOW_LINKS, StandardCopyOption.REPLACE_EXISTING);
            } else {
                masker.copy(from, to);
            }
        }
        return shown;
    }

    /**
     * The reports of a stage whose steps failed, as far as there are any; what is wrong with them is not why it failed.
     */
    Optional<String> reportsOfFailure() throws IOException, InterruptedException {
        StringBuilder wrong = new StringBuilder();
        for (Assignment.Report report : stage.reports()) {
            try {
                if (!Globs.find(spool.workspace(), report.paths()).isEmpty()) {
                    report(report, wrong);
                }
            } catch (CannotGoOn | LeaseClient.Refused unread) {
                wrong.append(unread.getMessage()).append('\n');
            }
        }
        return wrong.isEmpty() ? Optional.empty() : Optional.of(wrong.toString().strip());
    }

    private void send(String what, String path, Path root, List<Path> files) throws IOException, InterruptedException {
        Path archive = spool.folder().resolve("leaving.tar");
        String digest = Archives.pack(root, files, archive);
        CannotGoOn.unlessSame(what, digest, Patience.insist(() -> lease.archive(path, archive), wanted));
        Files.delete(archive);
    }

    private void keep(Assignment.Keep keep) throws InterruptedException, IOException {
        try {
            Path file = KeptFile.find(spool.workspace(), keep.name(), keep.path());
            String digest = Digests.of(file);
            CannotGoOn.unlessSame("artifact " + keep.name(), digest,
                    Patience.insist(() -> lease.output(keep.name(), file), wanted));
        } catch (KeptFile.NotOne wrong) {
            throw new CannotGoOn(wrong.getMessage());
        }
    }

    private String keepForReuse(Assignment.Reuse reuse) throws IOException, InterruptedException {
        Globs.Found found = Globs.look(spool.workspace(), reuse.folders().stream()
                .flatMap(folder -> Stream.of(folder, folder.replaceAll("/$", "") + "/**")).toList());
        List<Path> files = found.files();
        if (files.isEmpty()) {
            return found.words() + "reuse: nothing in " + String.join(", ", reuse.folders()) + " to keep";
        }
        send("what is reused", "/reuse/" + Files.readString(spool.folder().resolve("reuse-key")), spool.workspace(),
                files);
        return found.words() + "reuse: kept " + files.size() + " files of " + String.join(", ", reuse.folders());
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.core.audit.ExportCheck;
import dev.paseo.core.audit.Resumption;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(name = "export", description = {
        "Writes the audit trail to a file, as lines of JSON that verify by themselves: paseo audit verify FILE. The "
                + "file is there whole, or not at all.",
        "What came before a connection was cut stays in FILE.part; --resume goes on from there, or after the "
                + "last entry of FILE."},
        footer = {"", "Examples:", "  paseo audit export --into trail.jsonl",
                "  paseo audit export --into trail.jsonl --resume",
                "  paseo audit export --since 2026-11-01T00:00:00Z --into november.jsonl"})
final class ExportCommand extends ServiceCommand {

    @Option(names = "--into", required = true, paramLabel = "FILE", description = "where it is written")
    private Path file = Path.of("");

    @Option(names = "--since", paramLabel = "TIME",
            description = "ISO 8601, or how long ago, such as 30d; default: from the first entry on")
    private Optional<String> since = Optional.empty();

    @Option(names = "--from", paramLabel = "POSITION", description = "from this entry on")
    private Optional<Long> from = Optional.empty();

    @Option(names = "--resume", description = "goes on after what is there; without --since and --from")
    private boolean resume;

    ExportCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (resume && (since.isPresent() || from.isPresent())) {
            throw new Failure(Failure.Kind.USAGE, "--resume goes on after what is there: without --since and --from");
        }
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try {
            take(part);
            ExportCheck.Checked checked = TrailCommands.checked(part, Optional.empty(), List.of());
            if (!checked.passed()) {
                if (!checked.cutShort()) {
                    Files.delete(part);
                }
                throw new Failure(Failure.Kind.REFUSED, "What came does not verify, and " + file
                        + " was not written: " + checked.findings().getFirst());
            }
            Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
            context.out().println(checked.entries() + " entries, from position " + checked.from() + ", in " + file
                    + "; key " + checked.keyPrint());
            return 0;
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.REFUSED, file + " cannot be written: " + failed.getMessage());
        }
    }

    /** Takes it away into the part; of one that brought nothing nothing stays. */
    private void take(Path part) throws IOException {
        Optional<Resumption> kept = resume ? kept(part) : Optional.empty();
        List<String> query = new ArrayList<>();
        since.ifPresent(time -> query.add("since=" + Api.encode(RestraintCommands.past(time).toString())));
        kept.map(Resumption::next).or(() -> from).ifPresent(position -> query.add("from=" + position));
        String path = Api.path("audit", "export") + (query.isEmpty() ? "" : "?" + String.join("&", query));
        try (OutputStream out = kept.isPresent() ? Files.newOutputStream(part, StandardOpenOption.APPEND)
                : Files.newOutputStream(part)) {
            api().copy(path, kept.isPresent() ? new WithoutFirstLine(out) : out);
        } catch (Failure failed) {
            if (Files.size(part) == 0) {
                Files.delete(part);
                throw failed;
            }
            throw new Failure(failed.kind(), failed.getMessage() + ". What came is in " + part
                    + "; --resume goes on from there");
        }
    }

    /** Brings what stays of the part, or else of the file, into the part. */
    private Optional<Resumption> kept(Path part) throws IOException {
        if (Files.notExists(part)) {
            if (Files.notExists(file)) {
                return Optional.empty();
            }
            Files.copy(file, part);
        }
        try (InputStream in = Files.newInputStream(part)) {
            Optional<Resumption> kept = Resumption.of(in);
            try (FileChannel channel = FileChannel.open(part, StandardOpenOption.WRITE)) {
                channel.truncate(kept.map(Resumption::bytes).orElse(0L));
            }
            return kept;
        }
    }

    /** What is gone on with begins with a line of its own, which stands in the file already. */
    private static final class WithoutFirstLine extends FilterOutputStream {
        private boolean behind;

        WithoutFirstLine(OutputStream out) {
            super(out);
        }

        @Override
        public void write(int one) throws IOException {
            write(new byte[]{(byte) one}, 0, 1);
        }

        @Override
        public void write(byte[] bytes, int offset, int length) throws IOException {
            int from = offset;
            while (!behind && from < offset + length) {
                behind = bytes[from++] == '\n';
            }
            out.write(bytes, from, offset + length - from);
        }
    }
}

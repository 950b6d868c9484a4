package dev.paseo.cli.command;

import dev.paseo.api.pattern.Glob;
import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.core.text.Sha256;
import dev.paseo.language.file.Names;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

@Command(name = "publish",
        description = "Publishes a version that was built elsewhere. Sent again, it goes on where it broke off; the "
                + "same bytes again change nothing.",
        footer = {"",
                "An artifact's name is its file's, without the version and what follows; NAME=FILE gives another.",
                "", "Examples:", "  paseo publish hut-planner 2.3.0 dist/hut-planner-2.3.0.tgz --bring \"deploy/**\"",
                "  paseo publish hut-planner 2.3.0 app=dist/planner.tgz --tests \"reports/*.xml\" --author "
                        + "developer@park.example"})
final class PublishCommand extends ServiceCommand {

    private static final int TRIES = 5;

    @Parameters(index = "0", paramLabel = "COMPONENT")
    private String component = "";

    @Parameters(index = "1", paramLabel = "VERSION")
    private String number = "";

    @Parameters(index = "2", arity = "1..*", paramLabel = "FILE | NAME=FILE")
    private List<String> files = List.of();

    @Option(names = "--bring", paramLabel = "PATTERN",
            description = "files below this folder that the recipe brings, such as \"deploy/**\"")
    private List<String> bring = List.of();

    @Option(names = "--tests", paramLabel = "PATTERN", description = "JUnit XML reports")
    private List<String> tests = List.of();

    @Option(names = "--coverage", paramLabel = "PATTERN", description = "JaCoCo or Cobertura XML reports")
    private List<String> coverage = List.of();

    @Option(names = "--findings", paramLabel = "PATTERN", description = "SARIF 2.1.0 reports")
    private List<String> findings = List.of();

    @Option(names = "--parts", paramLabel = "PATTERN", description = "CycloneDX lists of parts, in JSON or XML")
    private List<String> parts = List.of();

    @Option(names = "--author", paramLabel = "ADDRESS",
            description = "mail address of somebody who wrote what is in it, beside you; may be repeated")
    private List<String> authors = List.of();

    PublishCommand(Context context) {
        super(context);
    }

    /** A file on its way. */
    private record Sent(String kind, String name, Path file) {}

    @Override
    public Integer call() {
        List<Path> scratch = new ArrayList<>();
        try {
            List<Sent> sent = new ArrayList<>(artifacts());
            archive("bundle", bring, sent, scratch);
            archive("tests", tests, sent, scratch);
            archive("coverage", coverage, sent, scratch);
            archive("findings", findings, sent, scratch);
            archive("parts", parts, sent, scratch);
            return publish(api(), sent);
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.REFUSED, "A file cannot be read: " + failed.getMessage());
        } finally {
            scratch.forEach(file -> file.toFile().delete());
        }
    }

    private int publish(Api api, List<Sent> sent) throws IOException {
        ObjectNode request = api.object().put("number", number);
        ArrayNode announced = request.putArray("files");
        for (Sent each : sent) {
            announced.addObject().put("kind", each.kind()).put("name", each.name())
                    .put("fileName", each.file().getFileName().toString())
                    .put("size", Files.size(each.file())).put("digest", digest(each.file()));
        }
        ArrayNode stated = request.putArray("authors");
        authors.forEach(stated::add);
        JsonNode upload = api.post(Api.path("components", component, "uploads"), request);
        if (!upload.has("id")) {
            return print(upload,
                    () -> context.out().println(component + " " + number + " is here already, with the same bytes."));
        }
        String id = upload.path("id").asString("");
        // The small ones first: what is amiss with them is told before the large ones are on their way.
        Map<Sent, Long> sizes = new HashMap<>();
        for (Sent each : sent) {
            sizes.put(each, Files.size(each.file()));
        }
        for (Sent each : sent.stream().sorted(Comparator.comparing(sizes::get)).toList()) {
            send(api, id, each);
        }
        JsonNode sealed = api.post(Api.path("uploads", id, "seal"), api.object());
        return print(sealed, () -> context.out().println(context.ink().strong(component + " " + number)
                + (sealed.path("fresh").asBoolean() ? " is published." : " is here already, with the same bytes.")));
    }

    private void send(Api api, String upload, Sent each) throws IOException {
        String path = Api.path("uploads", upload, "files", each.kind(), each.name());
        for (int tried = 1;; tried++) {
            long received = received(api, upload, each);
            if (received == Files.size(each.file()) && received > 0) {
                return;
            }
            try {
                api.send(path, each.file(), received);
                return;
            } catch (IOException broken) {
                if (tried == TRIES) {
                    throw new Failure(Failure.Kind.UNREACHABLE,
                            each.file() + " broke off " + TRIES + " times: " + broken.getMessage()
                                    + "; the same command goes on where it broke off");
                }
            }
        }
    }

    private static long received(Api api, String upload, Sent each) {
        for (JsonNode file : api.get(Api.path("uploads", upload)).path("files")) {
            if (file.path("kind").asString().equals(each.kind()) && file.path("name").asString().equals(each.name())) {
                return file.path("received").asLong();
            }
        }
        return 0;
    }

    private List<Sent> artifacts() {
        Map<String, Sent> artifacts = new LinkedHashMap<>();
        for (String text : files) {
            int equals = text.indexOf('=');
            Path file = Path.of(equals > 0 ? text.substring(equals + 1) : text);
            if (!Files.isRegularFile(file)) {
                throw new Failure(Failure.Kind.USAGE, "There is no file " + file);
            }
            String name = equals > 0 ? text.substring(0, equals)
                    : Names.artifact(file.getFileName().toString(), number);
            Sent before = artifacts.put(name, new Sent("artifact", name, file));
            if (before != null) {
                throw new Failure(Failure.Kind.USAGE, before.file() + " and " + file + " would both be the artifact "
                        + name + "; name them, as NAME=FILE");
            }
        }
        return List.copyOf(artifacts.values());
    }

    private void archive(String kind, List<String> patterns, List<Sent> sent, List<Path> scratch) throws IOException {
        if (patterns.isEmpty()) {
            return;
        }
        Path here = Path.of("").toAbsolutePath();
        Path archive = Files.createTempFile("paseo-" + kind, ".tar");
        scratch.add(archive);
        List<Glob> globs = patterns.stream().map(Glob::new).toList();
        int found = 0;
        try (Stream<Path> all = Files.walk(here);
                TarArchiveOutputStream tar = new TarArchiveOutputStream(Files.newOutputStream(archive))) {
            tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
            for (Path file : all.filter(Files::isRegularFile).sorted().toList()) {
                Path relative = here.relativize(file);
                if (globs.stream().anyMatch(glob -> glob.matches(relative))) {
                    add(tar, file, relative);
                    found++;
                }
            }
        }
        if (found == 0) {
            throw new Failure(Failure.Kind.USAGE, String.join(", ", patterns) + " matches no file below " + here);
        }
        sent.add(new Sent(kind, kind, archive));
    }

    /** Times are left out, so that the same files give the same bytes. */
    private static void add(TarArchiveOutputStream tar, Path file, Path relative) throws IOException {
        TarArchiveEntry entry = new TarArchiveEntry(relative.toString().replace('\\', '/'));
        entry.setSize(Files.size(file));
        entry.setMode(Files.isExecutable(file) ? 0755 : 0644);
        entry.setModTime(0);
        tar.putArchiveEntry(entry);
        Files.copy(file, tar);
        tar.closeArchiveEntry();
    }

    private static String digest(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file);
                DigestOutputStream out = new DigestOutputStream(OutputStream.nullOutputStream(), Sha256.digest())) {
            in.transferTo(out);
            return HexFormat.of().formatHex(out.getMessageDigest().digest());
        }
    }
}

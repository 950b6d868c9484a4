package dev.paseo.service.pipeline;

import dev.paseo.core.text.Sha256;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.language.piece.Used;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.pipeline.PipelineFileMapper.FileRow;
import dev.paseo.service.source.Mirror;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * Pipeline files as they were read at commits. What a file says never changes; one that uses pieces is a row for each
 * set of pieces that it was put together from.
 */
@Component
public class PipelineFiles {

    /**
     * Whose file it is.
     *
     * @param names its own, then those that it had: its file may say any of them
     */
    public record Owner(long id, List<String> names, String path) {

        String name() {
            return names.getFirst();
        }
    }

    private static final TypeReference<List<Problem>> PROBLEMS = new TypeReference<>() {};
    private static final int REMEMBERED = 200;

    private final PipelineFileMapper mapper;
    private final Releases releases;
    private final Json json;
    private final ServiceClock clock;
    private final Map<Long, FileInForce> read = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, FileInForce> eldest) {
            return size() > REMEMBERED;
        }
    };

    PipelineFiles(PipelineFileMapper mapper, Releases releases, Json json, ServiceClock clock) {
        this.mapper = mapper;
        this.releases = releases;
        this.json = json;
        this.clock = clock;
    }

    /** What is wrong with a text as the file of the component of these names. */
    public static List<Problem> problems(Reading<PipelineFile> reading, List<String> names) {
        List<Problem> problems = new ArrayList<>(reading.problems());
        reading.value().filter(file -> !names.contains(file.component()))
                .ifPresent(file -> problems.add(new Problem(1, 1,
                        "component",
                        "says " + file.component() + ", but this repository is registered as " + names.getFirst())));
        return problems;
    }

    /** A text as the file of a component that is to be registered, with these components opened to it. */
    public PipelineText text(String name, List<String> opened, String text) {
        return PipelineText.read(text, releases.now(name, opened));
    }

    /** A text as a component's file would be read now. */
    public PipelineText text(long component, String name, String text) {
        return PipelineText.read(text, releases.now(component, name));
    }

    /** The file at a commit, put together from the pieces that there are now. */
    public FileInForce at(Owner owner, String commit, Supplier<Optional<String>> asked) {
        FileRow row = mapper.newest(owner.id(), commit, owner.path()).orElseGet(() -> {
            keep(owner, commit, asked);
            return mapper.newest(owner.id(), commit, owner.path()).orElseThrow();
        });
        return row.problems().equals("[]") && PipelineText.mayUse(row.text()) ? putTogether(owner, commit, row)
                : file(row.id());
    }

    private void keep(Owner owner, String commit, Supplier<Optional<String>> asked) {
        String text = "";
        List<Problem> problems;
        try {
            Optional<String> found = asked.get();
            text = found.orElse("");
            problems = found.map(each -> kept(owner, each)).orElseGet(
                    () -> List.of(new Problem(1, 1, "", "there is no " + owner.path() + " at this commit")));
        } catch (Mirror.TooLarge larger) {
            problems = List.of(new Problem(1, 1, "", String.valueOf(larger.getMessage())));
        }
        mapper.keep(owner.id(), commit, owner.path(), text, json.write(problems), "", clock.now());
    }

    /** What is wrong with a text for good; what pieces are there is found out whenever it is read. */
    private static List<Problem> kept(Owner owner, String text) {
        return PipelineText.mayUse(text) ? List.of()
                : problems(PipelineText.read(text, PieceSource.NONE).reading(), owner.names());
    }

    /** Keeps a text as the file at a commit, and says of which row. */
    public long save(Owner owner, String commit, String text) {
        mapper.keep(owner.id(), commit, owner.path(), text, json.write(kept(owner, text)), "", clock.now());
        return mapper.newest(owner.id(), commit, owner.path()).orElseThrow().id();
    }

    private FileInForce putTogether(Owner owner, String commit, FileRow row) {
        PipelineText text = text(owner.id(), owner.name(), row.text());
        List<Problem> problems = problems(text.reading(), owner.names());
        if (!problems.isEmpty()) {
            return new FileInForce(row.id(), Optional.empty(), problems, text.reading().warnings());
        }
        String pieces = text.used().isEmpty() ? "" : digest(text.used());
        if (pieces.equals(row.pieces())) {
            return file(row.id());
        }
        mapper.keep(owner.id(), commit, owner.path(), row.text(), "[]", pieces, clock.now());
        long file = mapper.of(owner.id(), commit, owner.path(), pieces).orElseThrow().id();
        for (int at = 0; at < text.used().size(); at++) {
            mapper.addUse(file, at, row(text.used().get(at)));
        }
        mapper.putInForce(owner.id(), commit, file);
        return file(file);
    }

    private PipelineFileMapper.UseRow row(Used used) {
        long of = mapper.named(used.of()).orElseThrow().id();
        return new PipelineFileMapper.UseRow(of, used.named(), used.at(), used.piece(), used.wanted(),
                mapper.numbered(of, used.version()).orElseThrow().version(), used.digest(),
                used.within().orElse(null));
    }

    private static String digest(List<Used> used) {
        return Sha256.hex(used.stream().map(each -> String.join("\n", each.at(), each.piece(), each.named(),
                each.wanted(), each.of(), each.version(), each.digest())).collect(Collectors.joining("\n\n")));
    }

    /** A file as it was put together, which never changes. */
    public FileInForce file(long id) {
        synchronized (read) {
            FileInForce known = read.get(id);
            if (known != null) {
                return known;
            }
        }
        FileInForce file = inForce(mapper.byId(id));
        synchronized (read) {
            read.put(id, file);
        }
        return file;
    }

    /** The one that a run was started with. */
    public FileInForce ofRun(long run) {
        return file(mapper.ofRun(run));
    }

    private FileInForce inForce(FileRow row) {
        List<Problem> problems = json.read(row.problems(), PROBLEMS);
        if (!problems.isEmpty()) {
            return new FileInForce(row.id(), Optional.empty(), problems, List.of());
        }
        PipelineText text = PipelineText.read(row.text(), releases.recorded(row.id()));
        Reading<PipelineFile> reading = text.reading();
        return new FileInForce(row.id(), reading.value(), reading.problems(), reading.warnings(), text.used());
    }

    /** As it is written. */
    public String written(long file) {
        return mapper.byId(file).text();
    }

    /** With every piece in its place. */
    public PipelineText whole(long file) {
        return PipelineText.read(written(file), releases.recorded(file));
    }

    /** The texts of a component's file, the newest first. */
    public List<SeenText> history(long component, int most) {
        return mapper.history(component, most);
    }
}

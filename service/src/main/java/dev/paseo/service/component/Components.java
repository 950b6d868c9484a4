package dev.paseo.service.component;

import dev.paseo.service.source.SourceCredentials;
import dev.paseo.service.change.Changes;
import dev.paseo.service.start.StartTriggers;
import dev.paseo.core.access.Person;
import dev.paseo.core.text.Shortened;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.NearestName;
import dev.paseo.language.Places;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.ComponentMapper.ComponentRow;
import dev.paseo.service.component.ComponentMapper.RuleRow;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.source.Mirrors;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Components: what they are, which branches count, and the pipeline file at each commit. */
@Component
public class Components {

    /** A component. */
    public record Registered(long id, String name, Optional<String> repository, String filePath, String mainBranch,
            String summary, Optional<Instant> retired) {}

    /** A pipeline file as it stood at a commit: what it says, or what is wrong with it. */
    public record FileInForce(long id, Optional<PipelineFile> file, List<Problem> problems, List<Problem> warnings) {}

    private static final TypeReference<List<Problem>> PROBLEMS = new TypeReference<>() {};

    /** Of a branch or a tag, in characters. */
    public static final int LONGEST_NAME = 200;
    private static final int REMEMBERED = 200;

    private final ComponentMapper mapper;
    private final Reaching reaching;
    private final Json json;
    private final ServiceClock clock;
    private final StartTriggers triggers;
    private final Map<String, Long> firsts = new ConcurrentHashMap<>();
    private final Map<Long, FileInForce> read = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, FileInForce> eldest) {
            return size() > REMEMBERED;
        }
    };

    /** Where components' source and triggers are. */
    @Component
    record Reaching(Mirrors mirrors, SourceCredentials credentials, Changes changes) {}

    Components(ComponentMapper mapper, Reaching reaching, Json json, ServiceClock clock, StartTriggers triggers) {
        this.mapper = mapper;
        this.reaching = reaching;
        this.json = json;
        this.clock = clock;
        this.triggers = triggers;
    }

    private static Registered registered(ComponentRow row) {
        return new Registered(row.id(), row.name(), Optional.ofNullable(row.repository()), row.filePath(),
                row.mainBranch(), row.summary(), Optional.ofNullable(row.retiredAt()));
    }

    /** Where somebody commits who may not commit to trusted branches. */
    public static String ownBranch(Person person) {
        return "pipeline/" + person.name();
    }

    /** By its name or a former one. */
    public Optional<Registered> found(String name) {
        return mapper.named(name).or(() -> mapper.formerly(name)).map(Components::registered);
    }

    public Registered named(String name) {
        return found(name).orElseThrow(() -> Refusal.notFound("There is no component " + name
                + NearestName.hint(name, mapper.all().stream().map(ComponentRow::name).toList())));
    }

    /** The names that it had; they still reach it. */
    public List<String> formerNames(long component) {
        return mapper.formerNames(component);
    }

    /** The name that a component has now. */
    public String nameNow(String name) {
        return mapper.named(name).isPresent() ? name : mapper.formerly(name).map(ComponentRow::name).orElse(name);
    }

    /** A name like this one that no component has, or had. */
    public String freeName(String taken) {
        for (int number = 2;; number++) {
            String tail = "-" + number;
            String name = taken.substring(0, Math.min(taken.length(), 63 - tail.length())) + tail;
            if (free(name)) {
                return name;
            }
        }
    }

    boolean free(String name) {
        return mapper.named(name).or(() -> mapper.formerly(name)).isEmpty();
    }

    public Registered byId(long id) {
        return registered(mapper.byId(id));
    }

    public List<Registered> all() {
        return mapper.all().stream().map(Components::registered).toList();
    }

    /** Those whose names lie from the one to the other, both included. */
    public List<Registered> between(String first, String last) {
        return mapper.between(first, last).stream().map(Components::registered).toList();
    }

    public BranchRules rules(long component) {
        List<RuleRow> rules = mapper.rules(component);
        return BranchRules.of(rules.stream().filter(rule -> !rule.trusted()).map(RuleRow::pattern).toList(),
                rules.stream().filter(RuleRow::trusted).map(RuleRow::pattern).toList());
    }

    public Mirror mirror(Registered component) {
        String repository = component.repository().orElseThrow(
                () -> Refusal.conflict(component.name() + " has no repository: its versions arrive by upload"));
        long first = firsts.computeIfAbsent(repository, mapper::firstOf);
        return reaching.mirrors().of(first, repository, () -> reaching.credentials().of(first));
    }

    /** All components whose source is in one repository. */
    public List<Registered> ofRepository(String repository) {
        return mapper.ofRepository(repository).stream().map(Components::registered).toList();
    }

    /** Every repository, once. */
    public List<String> repositories() {
        return mapper.repositories();
    }

    /**
     * Keeps the file of a component without a repository; its branch is where the file is, its commits are revisions.
     */
    public void saveFile(Registered component, String base, String text, String by) {
        List<Problem> problems = problems(text, names(component));
        Map<String, String> heads = heads(component.id());
        Optional<String> before = Optional.ofNullable(heads.get(component.mainBranch()));
        if (!before.orElse("").equals(base)) {
            throw Refusal.conflict(
                    "The file was changed since this text was begun. It is now at " + before.orElse("no revision"));
        }
        String revision = "revision "
                + (before.map(at -> Integer.parseInt(at.substring("revision ".length()))).orElse(0) + 1);
        reaching.changes().run(() -> {
            mapper.keepFile(component.id(), revision, component.filePath(), text, json.write(problems), clock.now());
            long file = mapper.file(component.id(), revision, component.filePath()).orElseThrow().id();
            if (!moveHead(component.id(), component.mainBranch(), before, revision, file)) {
                throw Refusal.conflict("Somebody else saved the file at the same moment: look at it again");
            }
            reaching.changes().record(
                    AuditTrail.Entry.of(by, "pipeline file saved", component.name()).with("revision", revision));
        });
        PipelineFileReader.read(text).value().ifPresent(read -> summarise(component.id(), read.summary()));
        refreshTriggers();
    }

    /** A person's commit of the file was taken by the repository. */
    public void committed(Registered component, String branch, String commit, String by) {
        reaching.changes()
                .run(() -> reaching.changes()
                        .record(AuditTrail.Entry.of(by, "pipeline file committed", component.name())
                                .with("branch", branch).with("commit", commit)));
    }

    /** The commit each branch was last seen at. */
    public Map<String, String> heads(long component) {
        Map<String, String> heads = new LinkedHashMap<>();
        mapper.heads(component).forEach(head -> heads.put(head.branch(), head.commitId()));
        return heads;
    }

    /** Reads the file at a commit and keeps what was found; outside any transaction, since git is asked. */
    public FileInForce readFile(Registered component, String commit) {
        Optional<ComponentMapper.FileRow> known = mapper.file(component.id(), commit, component.filePath());
        if (known.isEmpty()) {
            keep(component, commit);
            known = mapper.file(component.id(), commit, component.filePath());
        }
        ComponentMapper.FileRow row = known.orElseThrow();
        FileInForce file = file(row.id());
        return file.file().flatMap(read -> cycle(component, read, row.text()))
                .map(cycle -> new FileInForce(file.id(), Optional.empty(), List.of(cycle), file.warnings()))
                .orElse(file);
    }

    /** Asks git for the file at a commit, and keeps it with what is wrong with it. */
    private void keep(Registered component, String commit) {
        String text = "";
        List<Problem> problems;
        try {
            Optional<String> found = mirror(component).file(commit, component.filePath());
            text = found.orElse("");
            problems = found.map(each -> problems(each, names(component))).orElseGet(
                    () -> List.of(new Problem(1, 1, "", "there is no " + component.filePath() + " at this commit")));
        } catch (Mirror.TooLarge larger) {
            problems = List.of(new Problem(1, 1, "", String.valueOf(larger.getMessage())));
        }
        mapper.keepFile(component.id(), commit, component.filePath(), text, json.write(problems), clock.now());
    }

    /** The component's own name, then those that it had: its file may say any of them. */
    List<String> names(Registered component) {
        return Stream.concat(Stream.of(component.name()), mapper.formerNames(component.id()).stream()).toList();
    }

    /** The text of the file at a commit that was read. */
    public String text(Registered component, String commit) {
        return mapper.file(component.id(), commit, component.filePath()).map(ComponentMapper.FileRow::text).orElse("");
    }

    static List<Problem> problems(String text, List<String> names) {
        Reading<PipelineFile> reading = PipelineFileReader.read(text);
        List<Problem> problems = new ArrayList<>(reading.problems());
        reading.value().filter(file -> !names.contains(file.component()))
                .ifPresent(file -> problems.add(new Problem(1, 1,
                        "component",
                        "says " + file.component() + ", but this repository is registered as " + names.getFirst())));
        return problems;
    }

    /** That the triggers would make a cycle, with those of the other components as they are now. */
    Optional<Problem> cycle(Registered component, PipelineFile file, String text) {
        return triggers.cycle(component.name(), file, this::nameNow).map(way -> Places.of(text).problem("starts",
                "would make a cycle: " + String.join(" starts ", way)));
    }

    /**
     * Puts the triggers of each main branch in force whose file has changed; those that would make a cycle are tried
     * again when another file changes. Called where heads move, and at the start for what an earlier release left.
     */
    public void refreshTriggers() {
        triggers.stale().forEach((component, id) -> file(id).file().ifPresentOrElse(file -> {
            if (triggers.cycle(byId(component).name(), file, this::nameNow).isEmpty()) {
                triggers.putInForce(component, id, file, this::nameNow);
            }
        }, () -> triggers.leave(component, id)));
    }

    private FileInForce inForce(ComponentMapper.FileRow row) {
        List<Problem> problems = json.read(row.problems(), PROBLEMS);
        if (!problems.isEmpty()) {
            return new FileInForce(row.id(), Optional.empty(), problems, List.of());
        }
        Reading<PipelineFile> reading = PipelineFileReader.read(row.text());
        return new FileInForce(row.id(), reading.value(), problems, reading.warnings());
    }

    /** A file never changes, so what was read of it is remembered. */
    public FileInForce file(long id) {
        synchronized (read) {
            FileInForce known = read.get(id);
            if (known != null) {
                return known;
            }
        }
        FileInForce file = inForce(mapper.fileById(id));
        synchronized (read) {
            read.put(id, file);
        }
        return file;
    }

    /** Says that a branch is at a commit now. True for the one caller that moved it from where it was known to be. */
    public boolean moveHead(long component, String branch, Optional<String> before, String commit, long file) {
        return before.map(old -> mapper.moveHead(component, branch, old, commit, file, clock.now()))
                .orElseGet(() -> mapper.addHead(component, branch, commit, file, clock.now())) == 1;
    }

    public boolean dropHead(long component, String branch, String before) {
        return mapper.dropHead(component, branch, before) == 1;
    }

    /** The commit each tag was first seen at. */
    public Map<String, String> tags(long component) {
        Map<String, String> tags = new LinkedHashMap<>();
        mapper.gitTags(component).forEach(row -> tags.put(row.tag(), row.commitId()));
        return tags;
    }

    /** Says that a tag is at a commit. True for the one caller that saw it first, there or after it was moved. */
    public boolean seeTag(long component, String tag, String commit) {
        return tag.length() <= LONGEST_NAME && (mapper.addTag(component, tag, commit, clock.now()) == 1
                || mapper.moveTag(component, tag, commit, clock.now()) == 1);
    }

    /** Notes many new branches at once, which start nothing; false where somebody else has noted them. */
    public boolean seeHeads(Registered component, Map<String, String> heads) {
        Map<String, Long> files = new HashMap<>();
        String rows = json
                .write(heads.entrySet().stream().map(head -> new ComponentMapper.NewHead(head.getKey(), head.getValue(),
                        files.computeIfAbsent(head.getValue(), commit -> readFile(component, commit).id()))).toList());
        return mapper.addHeads(component.id(), rows, clock.now()) > 0;
    }

    /** Notes many tags at once, which start nothing; false where somebody else has noted them. */
    public boolean seeTags(long component, Map<String, String> tags) {
        String rows = json.write(
                tags.entrySet().stream().map(tag -> new ComponentMapper.TagRow(tag.getKey(), tag.getValue())).toList());
        return mapper.addTags(component, rows, clock.now()) > 0;
    }

    public void summarise(long component, String summary) {
        mapper.summarise(component, Shortened.to(summary, 400));
    }

    /** The names of all environments. */
    List<String> environmentNames() {
        return mapper.environments();
    }

    /** What agents offer, for files that want it. */
    List<String> offers() {
        return mapper.offers();
    }

    /** The texts of its file, the newest first. */
    List<ComponentMapper.FileHistoryRow> fileHistory(Registered component, int most) {
        return mapper.fileHistory(component.id(), most);
    }
}

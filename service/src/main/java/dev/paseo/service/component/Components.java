package dev.paseo.service.component;

import dev.paseo.core.access.Person;
import dev.paseo.core.text.Shortened;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.NearestName;
import dev.paseo.language.Problem;
import dev.paseo.language.SourcePositions;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.ComponentMapper.ComponentRow;
import dev.paseo.service.component.ComponentMapper.RuleRow;
import dev.paseo.service.database.Json;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.start.StartTriggers;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Components: what they are, which branches count, and the pipeline file at each commit. */
@Component
public class Components {

    /** A component. */
    public record RegisteredComponent(long id, String name, Optional<String> repository, String filePath,
            String mainBranch,
            String summary, Optional<Instant> retired) {}

    /** Of a branch or a tag, in characters. */
    public static final int LONGEST_NAME = 200;

    private final ComponentMapper mapper;
    private final ComponentMirrors mirrors;
    private final Json json;
    private final PipelineFiles files;
    private final StartTriggers triggers;
    private final Changes changes;

    Components(ComponentMapper mapper, ComponentMirrors mirrors, Json json, PipelineFiles files, StartTriggers triggers,
            Changes changes) {
        this.mapper = mapper;
        this.mirrors = mirrors;
        this.json = json;
        this.files = files;
        this.triggers = triggers;
        this.changes = changes;
    }

    private static RegisteredComponent registered(ComponentRow row) {
        return new RegisteredComponent(row.id(), row.name(), Optional.ofNullable(row.repository()), row.filePath(),
                row.mainBranch(), row.summary(), Optional.ofNullable(row.retiredAt()));
    }

    /** Where somebody commits who may not commit to trusted branches. */
    public static String ownBranch(Person person) {
        return "pipeline/" + person.name();
    }

    /** By its name or a former one. */
    public Optional<RegisteredComponent> found(String name) {
        return mapper.named(name).or(() -> mapper.formerly(name)).map(Components::registered);
    }

    public RegisteredComponent named(String name) {
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

    public RegisteredComponent byId(long id) {
        return registered(mapper.byId(id));
    }

    public List<RegisteredComponent> all() {
        return mapper.all().stream().map(Components::registered).toList();
    }

    /** Those whose names lie from the one to the other, both included. */
    public List<RegisteredComponent> between(String first, String last) {
        return mapper.between(first, last).stream().map(Components::registered).toList();
    }

    public BranchRules rules(long component) {
        List<RuleRow> rules = mapper.rules(component);
        return BranchRules.of(rules.stream().filter(rule -> !rule.trusted()).map(RuleRow::pattern).toList(),
                rules.stream().filter(RuleRow::trusted).map(RuleRow::pattern).toList());
    }

    public Mirror mirror(RegisteredComponent component) {
        String repository = component.repository().orElseThrow(
                () -> Refusal.conflict(component.name() + " has no repository: its versions arrive by upload"));
        return mirrors.of(repository);
    }

    /** All components whose source is in one repository. */
    public List<RegisteredComponent> ofRepository(String repository) {
        return mapper.ofRepository(repository).stream().map(Components::registered).toList();
    }

    /** Every repository, once. */
    public List<String> repositories() {
        return mapper.repositories();
    }

    /**
     * Keeps the file of a component without a repository; its branch is where the file is, its commits are revisions.
     */
    public void saveFile(RegisteredComponent component, String base, String text, String by) {
        Map<String, String> heads = heads(component.id());
        Optional<String> before = Optional.ofNullable(heads.get(component.mainBranch()));
        if (!before.orElse("").equals(base)) {
            throw Refusal.conflict(
                    "The file was changed since this text was begun. It is now at " + before.orElse("no revision"));
        }
        String revision = "revision "
                + (before.map(at -> Integer.parseInt(at.substring("revision ".length()))).orElse(0) + 1);
        changes.run(() -> {
            long file = files.save(owner(component), revision, text);
            if (!moveHead(component.id(), component.mainBranch(), before, revision, file)) {
                throw Refusal.conflict("Somebody else saved the file at the same moment: look at it again");
            }
            changes.record(
                    AuditTrail.Entry.of(by, "pipeline file saved", component.name()).with("revision", revision));
        });
        readFile(component, revision).file().ifPresent(read -> summarise(component.id(), read.summary()));
        refreshTriggers();
    }

    /** A person's commit of the file was taken by the repository. */
    public void committed(RegisteredComponent component, String branch, String commit, String by) {
        changes
                .run(() -> changes
                        .record(AuditTrail.Entry.of(by, "pipeline file committed", component.name())
                                .with("branch", branch).with("commit", commit)));
    }

    /** The commit each branch was last seen at. */
    public Map<String, String> heads(long component) {
        Map<String, String> heads = new LinkedHashMap<>();
        mapper.heads(component).forEach(head -> heads.put(head.branch(), head.commitId()));
        return heads;
    }

    /**
     * Reads the file at a commit, with the pieces that there are now, and keeps what was found; outside any
     * transaction, since git is asked.
     */
    public FileInForce readFile(RegisteredComponent component, String commit) {
        FileInForce file = files.at(owner(component), commit,
                () -> mirror(component).file(commit, component.filePath()));
        return file.file().flatMap(read -> cycle(component, read, files.whole(file.id()).places()))
                .map(file::but).orElse(file);
    }

    private PipelineFiles.Owner owner(RegisteredComponent component) {
        return new PipelineFiles.Owner(component.id(), names(component), component.filePath());
    }

    /** The component's own name, then those that it had: its file may say any of them. */
    List<String> names(RegisteredComponent component) {
        return Stream.concat(Stream.of(component.name()), mapper.formerNames(component.id()).stream()).toList();
    }

    /** That the triggers would make a cycle, with those of the other components as they are now. */
    Optional<Problem> cycle(RegisteredComponent component, PipelineFile file, SourcePositions places) {
        return triggers.cycle(component.name(), file, this::nameNow).map(way -> places.problem("starts",
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

    /** A file as it was put together, which never changes. */
    public FileInForce file(long id) {
        return files.file(id);
    }

    /** The file that a run was started with. */
    public FileInForce fileOfRun(long run) {
        return files.ofRun(run);
    }

    /** Says that a branch is at a commit now. True for the one caller that moved it from where it was known to be. */
    public boolean moveHead(long component, String branch, Optional<String> before, String commit, long file) {
        return before.map(old -> mapper.moveHead(component, branch, old, commit, file, changes.now()))
                .orElseGet(() -> mapper.addHead(component, branch, commit, file, changes.now())) == 1;
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
        return tag.length() <= LONGEST_NAME && (mapper.addTag(component, tag, commit, changes.now()) == 1
                || mapper.moveTag(component, tag, commit, changes.now()) == 1);
    }

    /** Notes many new branches at once, which start nothing; false where somebody else has noted them. */
    public boolean seeHeads(RegisteredComponent component, Map<String, String> heads) {
        Map<String, Long> files = new HashMap<>();
        String rows = json
                .write(heads.entrySet().stream().map(head -> new ComponentMapper.NewHead(head.getKey(), head.getValue(),
                        files.computeIfAbsent(head.getValue(), commit -> readFile(component, commit).id()))).toList());
        return mapper.addHeads(component.id(), rows, changes.now()) > 0;
    }

    /** Notes many tags at once, which start nothing; false where somebody else has noted them. */
    public boolean seeTags(long component, Map<String, String> tags) {
        String rows = json.write(
                tags.entrySet().stream().map(tag -> new ComponentMapper.TagRow(tag.getKey(), tag.getValue())).toList());
        return mapper.addTags(component, rows, changes.now()) > 0;
    }

    public void summarise(long component, String summary) {
        mapper.summarise(component, Shortened.to(summary, 400));
    }

    /** The names of all environments. */
    public List<String> environmentNames() {
        return mapper.environments();
    }

    /** What agents offer, for files that want it. */
    public List<String> offers() {
        return mapper.offers();
    }
}

package dev.paseo.service.trigger;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.text.Shortened;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.PipelineChecks;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.start.Triggers;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Looks at a repository's branches and tags and starts what moved ones start, for every component whose source is in
 * it.
 * A hook or a poll only says that it is worth looking: whoever moves a head from where it was known to be acts on it,
 * so that nothing starts twice.
 */
@Component
public class Pushes {

    /** What the move of one branch, or a new tag, led to; and what should be changed in the pipeline file there. */
    public record Moved(String component, String name, String commit, Starting.Led led, List<String> warnings) {}

    /** A branch that is there no more. */
    public record Gone(String component, String branch, boolean preview) {}

    /** A branch or tag that could not be read, so that the others go on without it; it is looked at again. */
    public record Unread(String component, String name, String commit, String why) {

        public String sentence() {
            return name + " of " + component + " cannot be read at " + commit.substring(0, Math.min(7, commit.length()))
                    + ": " + why;
        }
    }

    /**
     * What a look at a repository found; {@code many} is what came in such numbers that it is told together, as
     * sentences.
     */
    public record Seen(List<Moved> moved, List<Gone> gone, List<Unread> unread, List<String> many) {

        private Seen() {
            this(new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        }
    }

    private static final Logger LOG = LoggerFactory.getLogger(Pushes.class);

    /** A hook that comes so long after a poll has noticed the push still says who pushed. */
    private static final Duration LATE = Duration.ofMinutes(10);
    private static final int MOST_PATHS = 10_000;
    /** Of new branches or tags that come at once and start nothing, so many are told one by one. */
    private static final int MOST_TOLD = 50;

    private final Components components;
    private final Starting starting;
    private final EventMapper mapper;
    private final PipelineChecks checks;
    private final ServiceClock clock;

    Pushes(Components components, Starting starting, EventMapper mapper, PipelineChecks checks, ServiceClock clock) {
        this.components = components;
        this.checks = checks;
        this.clock = clock;
        this.starting = starting;
        this.mapper = mapper;
    }

    public Seen look(String repository, Pusher pusher) {
        List<RegisteredComponent> all = components.ofRepository(repository);
        if (all.isEmpty()) {
            return new Seen();
        }
        Mirror mirror = components.mirror(all.getFirst());
        mirror.fetch();
        Mirror.Refs refs = mirror.refs();
        Seen seen = new Seen();
        for (RegisteredComponent component : all) {
            heads(component, mirror, mainFirst(component, refs.heads()), pusher, seen);
        }
        for (RegisteredComponent component : all) {
            tags(component, mirror, refs.tags(), seen);
        }
        if (!seen.many().isEmpty()) {
            mirror.pack();
        }
        return seen;
    }

    /** One that cannot be read is told, and keeps none of the others; that the database is away concerns them all. */
    private void alone(RegisteredComponent component, boolean tag, String name, String commit, Seen seen,
            Runnable reading) {
        try {
            reading.run();
        } catch (DataAccessResourceFailureException | TransactionException all) {
            throw all;
        } catch (RuntimeException failed) {
            Unread unread = new Unread(component.name(), name, commit,
                    failed instanceof Refusal ? String.valueOf(failed.getMessage()) : "see the service's log");
            LOG.warn("{}", unread.sentence(), failed);
            seen.unread().add(unread);
            starting.refused(Happened.unread(component, tag, Shortened.to(name, Components.LONGEST_NAME), commit),
                    "it cannot be read: " + unread.why() + "; it is tried again");
        }
    }

    /** However many branches there are, the main one waits for none of them. */
    private static Map<String, String> mainFirst(RegisteredComponent component, Map<String, String> heads) {
        Map<String, String> ordered = new LinkedHashMap<>();
        Optional.ofNullable(heads.get(component.mainBranch()))
                .ifPresent(commit -> ordered.put(component.mainBranch(), commit));
        ordered.putAll(heads);
        return ordered;
    }

    private void heads(RegisteredComponent component, Mirror mirror, Map<String, String> heads, Pusher pusher,
            Seen seen) {
        Map<String, String> known = components.heads(component.id());
        Map<String, String> moved = new LinkedHashMap<>(heads);
        moved.entrySet().removeIf(head -> head.getValue().equals(known.get(head.getKey())));
        pusher.branches().ifPresent(pushed -> pushed.stream()
                .filter(branch -> heads.containsKey(branch) && !moved.containsKey(branch))
                .forEach(branch -> tell(component, branch, heads.get(branch), pusher)));
        Bulk bulk = new Bulk(moved.size() > MOST_TOLD, Pushes::ofBranches);
        moved.forEach((branch, commit) -> alone(component, false, branch, commit, seen, () -> {
            if (known.containsKey(branch) || branch.length() > Components.LONGEST_NAME
                    || !bulk.takes(component, branch, commit)) {
                head(component, mirror, branch, Optional.ofNullable(known.get(branch)), commit, pusher, seen);
            }
        }));
        together(component, false, bulk.taken, rest -> components.seeHeads(component, rest), seen);
        known.forEach((branch, commit) -> {
            if (!heads.containsKey(branch) && components.dropHead(component.id(), branch, commit)) {
                seen.gone().add(new Gone(component.name(), branch, previewed(component, branch, commit)));
            }
        });
    }

    private void head(RegisteredComponent component, Mirror mirror, String branch, Optional<String> before,
            String commit,
            Pusher pusher, Seen seen) {
        FileInForce file = components.readFile(component, commit);
        Optional<Starting.Led> led = moved(component, mirror, branch, before, commit, pusher, file);
        if (led.isEmpty()) {
            // Another look was first, and may have been told nothing.
            tell(component, branch, commit, pusher);
        }
        led.ifPresent(came -> seen.moved().add(
                new Moved(component.name(), branch, commit, came, doubts(component, file))));
    }

    /** Says who pushed what was noticed already, as far as it is known here. */
    private void tell(RegisteredComponent component, String branch, String commit, Pusher pusher) {
        pusher.of(branch)
                .ifPresent(by -> mapper.tell(component.id(), branch, commit, by, clock.now().minus(LATE)));
    }

    /** Whether the file that was last there makes previews of the branch. */
    private boolean previewed(RegisteredComponent component, String branch, String commit) {
        return components.readFile(component, commit).file().map(Triggers::of).orElse(List.of()).stream()
                .anyMatch(trigger -> trigger instanceof Trigger.Preview preview
                        && preview.branches().stream().anyMatch(pattern -> pattern.matches(branch)));
    }

    /** What of the file at a new head does not agree with what is here; it keeps nothing from starting. */
    private List<String> doubts(RegisteredComponent component, FileInForce file) {
        if (file.file().isEmpty()) {
            return List.of();
        }
        PipelineChecks.Checked checked = checks.check(component, file);
        return Stream.concat(checked.problems().stream(), checked.warnings().stream())
                .map(each -> component.filePath() + ":" + each).distinct().toList();
    }

    private Optional<Starting.Led> moved(RegisteredComponent component, Mirror mirror, String branch,
            Optional<String> before,
            String commit, Pusher pusher, FileInForce file) {
        Mirror.Commit head = mirror.commit(commit);
        Optional<String> told = pusher.of(branch);
        String by = told.orElse(head.address());
        boolean tooLong = branch.length() > Components.LONGEST_NAME;
        Event.Pushed event = new Event.Pushed(component.name(), branch, commit,
                changed(component, mirror, branch, commit, file));
        Happened happened = new Happened(event, component,
                tooLong ? Optional.of("long name at " + commit) : Optional.empty(),
                "push " + commit.substring(0, 7) + " to " + branch
                        + (told.isPresent() ? " by " + by : " (nobody told by whom; committed by " + by + ")"),
                new Cause.Push(component.name(), branch, commit, by), OptionalLong.empty(), by, Optional.of(branch),
                Optional.of(commit), Optional.empty()).by(told.isPresent(), file);
        if (tooLong) {
            return starting.refused(happened,
                    "the branch's name has more than " + Components.LONGEST_NAME + " characters");
        }
        Optional<Starting.Led> led = starting.happened(happened, () -> {
            boolean ours = components.moveHead(component.id(), branch, before, commit, file.id());
            if (ours && branch.equals(component.mainBranch())) {
                components.refreshTriggers();
            }
            return ours;
        });
        if (branch.equals(component.mainBranch())) {
            file.file().ifPresent(read -> components.summarise(component.id(), read.summary()));
        }
        led.filter(ours -> before.isPresent() && !mirror.precedes(before.get(), commit))
                .ifPresent(ours -> mapper.say(ours.event(),
                        "; it rewrote the branch, which was at " + before.get().substring(0, 7)));
        return led;
    }

    /** What changed since the last started commit of the branch, where a trigger asks. */
    private Optional<List<String>> changed(RegisteredComponent component, Mirror mirror, String branch, String commit,
            FileInForce file) {
        boolean asked = file.file().map(Triggers::of).orElse(List.of()).stream()
                .anyMatch(trigger -> trigger instanceof Trigger.Push push && !push.paths().isEmpty());
        return asked ? mapper.lastStarted(component.id(), branch).map(last -> mirror.changed(last, commit, MOST_PATHS))
                : Optional.empty();
    }

    private void tags(RegisteredComponent component, Mirror mirror, Map<String, String> tags, Seen seen) {
        Map<String, String> known = components.tags(component.id());
        Map<String, String> fresh = new LinkedHashMap<>(tags);
        fresh.entrySet().removeIf(tag -> tag.getValue().equals(known.get(tag.getKey()))
                || tag.getKey().length() > Components.LONGEST_NAME);
        Bulk bulk = new Bulk(fresh.size() > MOST_TOLD, Pushes::ofTags);
        fresh.forEach((tag, commit) -> alone(component, true, tag, commit, seen, () -> {
            if (!bulk.takes(component, tag, commit)) {
                tagged(component, mirror, tag, commit)
                        .ifPresent(led -> seen.moved().add(new Moved(component.name(), tag, commit, led, List.of())));
            }
        }));
        together(component, true, bulk.taken, rest -> components.seeTags(component.id(), rest), seen);
    }

    /** New names that come in such numbers that those which no rule names are told together. */
    private final class Bulk {

        private final boolean many;
        private final Function<Trigger, List<BranchPattern>> named;
        private final Map<String, List<BranchPattern>> patterns = new HashMap<>();
        private final Map<String, String> taken = new LinkedHashMap<>();

        /** @param named the patterns by which an entry of {@code starts} names them */
        private Bulk(boolean many, Function<Trigger, List<BranchPattern>> named) {
            this.many = many;
            this.named = named;
        }

        private boolean takes(RegisteredComponent component, String name, String commit) {
            if (!many || patterns.computeIfAbsent(commit, at -> patterns(components.readFile(component, at), named))
                    .stream()
                    .anyMatch(pattern -> pattern.matches(name))) {
                return false;
            }
            taken.put(name, commit);
            return true;
        }
    }

    /** What starts nothing, and is too much to be told one by one. */
    private void together(RegisteredComponent component, boolean tags, Map<String, String> names,
            Predicate<Map<String, String>> noted, Seen seen) {
        if (names.isEmpty() || !noted.test(names)) {
            return;
        }
        String first = names.keySet().iterator().next();
        String commit = names.get(first);
        String what = tags ? "tags" : "branches";
        String sentence = String.format(Locale.ROOT, "%,d new %s, such as %s", names.size(), what,
                String.join(", ", names.keySet().stream().limit(3).toList()));
        starting.refused(
                new Happened(
                        tags ? new Event.Tagged(component.name(), first, commit, Optional.empty(), Optional.empty())
                                : new Event.Pushed(component.name(), first, commit, Optional.empty()),
                        component,
                        Optional.of(names.size() + " " + what + " from " + Shortened.to(first, 60) + " at " + commit),
                        sentence,
                        tags ? new Cause.Tag(component.name(), first, commit)
                                : new Cause.Push(component.name(), first, commit, ""),
                        OptionalLong.empty(), "",
                        tags ? Optional.empty() : Optional.of(first), Optional.of(commit), Optional.empty()),
                "no rule of the pipeline file names any of them");
        seen.many().add("Paseo noticed " + sentence + ", of " + component.name()
                + ": no rule names any of them, and they start nothing");
    }

    private static List<BranchPattern> ofTags(Trigger start) {
        return start instanceof Trigger.Tag(BranchPattern pattern) ? List.of(pattern) : List.of();
    }

    private static List<BranchPattern> ofBranches(Trigger start) {
        return switch (start) {
            case Trigger.Push push -> push.branches();
            case Trigger.Preview(var branches) -> branches;
            default -> List.of();
        };
    }

    private static List<BranchPattern> patterns(FileInForce file, Function<Trigger, List<BranchPattern>> named) {
        return file.file().map(PipelineFile::starts).orElse(List.of()).stream()
                .flatMap(start -> named.apply(start).stream()).toList();
    }

    private Optional<Starting.Led> tagged(RegisteredComponent component, Mirror mirror, String tag, String commit) {
        Optional<String> sealed = mapper.sealedFrom(component.id(), commit);
        List<String> branches = mirror.branchesWith(commit);
        Optional<String> branch = components.rules(component.id()).ofTag(component.mainBranch(), branches);
        FileInForce file = components.readFile(component, commit);
        Event.Tagged event = new Event.Tagged(component.name(), tag, commit, branch, sealed);
        return starting.happened(
                new Happened(event, component, Optional.empty(), "tag " + tag + " on commit " + commit.substring(0, 7),
                        new Cause.Tag(component.name(), tag, commit), OptionalLong.empty(),
                        mirror.commit(commit).address(), branch, Optional.of(commit), Optional.empty()).by(true, file),
                () -> {
                    boolean ours = components.seeTag(component.id(), tag, commit);
                    if (ours && sealed.isPresent() && patterns(file, Pushes::ofTags).stream()
                            .anyMatch(pattern -> pattern.matches(tag))) {
                        mapper.name(component.id(), tag, sealed.get());
                    }
                    return ours;
                });
    }

    /**
     * Says who pushed a commit, where nobody told when it was noticed.
     *
     * @return the branches of which it was unknown
     */
    public List<String> tell(RegisteredComponent component, String commit, String account) {
        List<String> branches = mapper.untold(component.id(), commit);
        branches.forEach(branch -> mapper.tell(component.id(), branch, commit, account, Instant.EPOCH));
        return branches;
    }
}

package dev.paseo.service.trigger;

import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.core.trigger.Event;
import dev.paseo.core.trigger.Matching;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.start.StartTriggers;
import dev.paseo.service.start.Triggers;
import dev.paseo.service.run.RunStarts;
import dev.paseo.service.source.Mirror;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * The triggers that an event could concern, and what a run that one of them starts would be made of. What happens to a
 * component's own source is judged by the file at that commit, everything else by the file of the main branch.
 */
@Component
class InForce {

    /** A trigger with the file it stands in. */
    record Standing(Matching.InForce trigger, RegisteredComponent component, FileInForce file) {}

    /** A component whose triggers cannot be read. */
    record Broken(RegisteredComponent component, String problem) {}

    /** @param problem with the file of the very commit that was pushed */
    record Found(List<Standing> triggers, List<Broken> broken, Optional<String> problem) {

        Standing of(Matching.InForce trigger) {
            return triggers.stream().filter(each -> each.trigger() == trigger).findFirst().orElseThrow();
        }
    }

    /** @param problem why nothing can be started from it */
    record PlanInForce(RegisteredComponent component, Mirror.Commit commit, long file, Optional<PipelineFile> plan,
            Optional<String> problem) {}

    private final Components components;
    private final StartTriggers triggers;

    InForce(Components components, StartTriggers triggers) {
        this.components = components;
        this.triggers = triggers;
    }

    long id(String component) {
        return components.named(component).id();
    }

    Found concernedBy(Happened happened) {
        if (happened.about().retired().isPresent()) {
            return new Found(List.of(), List.of(), Optional.of(happened.about().name() + " is retired"));
        }
        return switch (happened.event()) {
            case Event.Pushed pushed -> own(happened.about(), read(happened, pushed.commit()));
            case Event.Tagged tagged -> own(happened.about(), read(happened, tagged.commit()));
            case Event.Fired fired -> ofMain(List.of(happened.about()));
            case Event.Arrived arrived -> ofMain(List.of(happened.about()));
            case Event.RunEnded ended -> ofMain(
                    triggers.onRunsOf(ended.component()).stream().map(components::byId).toList());
            case Event.WentLive live -> ofMain(
                    triggers.onLive(live.component()).stream().map(components::byId).toList());
        };
    }

    private FileInForce read(Happened happened, String commit) {
        return happened.file().orElseGet(() -> components.readFile(happened.about(), commit));
    }

    private Found own(RegisteredComponent component, FileInForce file) {
        return file.file().map(read -> new Found(standing(component, file, read), List.of(), Optional.<String>empty()))
                .orElseGet(() -> new Found(List.of(), List.of(), Optional.of(problem(component, file))));
    }

    private Found ofMain(List<RegisteredComponent> concerned) {
        List<Standing> standing = new ArrayList<>();
        List<Broken> broken = new ArrayList<>();
        for (RegisteredComponent component : concerned) {
            Optional<FileInForce> main = main(component);
            if (main.isEmpty()) {
                broken.add(new Broken(component, component.mainBranch() + " has no commit"));
            } else if (main.get().file().isEmpty()) {
                broken.add(new Broken(component, problem(component, main.get()) + ", on " + component.mainBranch()));
            } else {
                standing.addAll(standing(component, main.get(), main.get().file().get()));
            }
        }
        return new Found(standing, broken, Optional.empty());
    }

    private Optional<FileInForce> main(RegisteredComponent component) {
        return Optional.ofNullable(components.heads(component.id()).get(component.mainBranch()))
                .map(commit -> components.readFile(component, commit));
    }

    private List<Standing> standing(RegisteredComponent component, FileInForce file, PipelineFile read) {
        return Matching.InForce.of(component.name(), Triggers.of(read, components::nameNow),
                components.rules(component.id()), component.mainBranch(), component.repository()).stream()
                .map(trigger -> new Standing(trigger, component, file)).toList();
    }

    private static String problem(RegisteredComponent component, FileInForce file) {
        return component.filePath() + ":" + file.problems().getFirst()
                + (file.problems().size() > 1 ? " (and " + (file.problems().size() - 1) + " more)" : "");
    }

    /** Asks git, and so is called outside transactions. */
    PlanInForce plan(Happened happened, Standing standing) {
        RegisteredComponent component = standing.component();
        boolean ofEvent = switch (happened.event()) {
            case Event.Pushed pushed -> true;
            case Event.Tagged tagged -> true;
            case Event.RunEnded ended -> standing.trigger().trigger() instanceof Trigger.Upstream upstream
                    && upstream.sameCommit();
            case Event.Fired fired -> false;
            case Event.WentLive live -> false;
            case Event.Arrived arrived -> false;
        };
        if (component.repository().isEmpty()) {
            return plan(component, new Mirror.Commit("", "", happened.by(), "", Instant.EPOCH, Optional.empty()),
                    standing.file());
        }
        Map<String, String> heads = components.heads(component.id());
        String id = ofEvent ? happened.commit().orElseThrow() : heads.get(component.mainBranch());
        Mirror.Commit found = components.mirror(component).tagged(id);
        // Of several tags on one commit the one counts that started it.
        Mirror.Commit commit = happened.event() instanceof Event.Tagged tagged && ofEvent
                ? new Mirror.Commit(found.id(), found.summary(), found.author(), found.address(), found.at(),
                        Optional.of(tagged.tag()))
                : found;
        boolean own = happened.event() instanceof Event.Pushed || happened.event() instanceof Event.Tagged;
        return plan(component, commit, ofEvent && !own ? components.readFile(component, id) : standing.file());
    }

    private static PlanInForce plan(RegisteredComponent component, Mirror.Commit commit, FileInForce file) {
        Optional<String> problem = file.file().isEmpty() ? Optional.of(problem(component, file))
                : file.file().flatMap(plan -> RunStarts.nothingToRun(component, plan));
        return new PlanInForce(component, commit, file.id(), file.file(), problem);
    }
}

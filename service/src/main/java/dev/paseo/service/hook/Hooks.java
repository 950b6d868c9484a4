package dev.paseo.service.hook;

import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.store.Stores;
import dev.paseo.service.trigger.Polls;
import dev.paseo.service.trigger.Pusher;
import dev.paseo.service.trigger.Pushes;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Follows hooks that are believed. */
@Component
class Hooks {

    /** How many lines a push is answered with. */
    private static final int MOST_LINES = 40;

    private final Pushes pushes;
    private final Polls polls;
    private final Stores stores;
    private final JsonMapper tree;

    Hooks(Pushes pushes, Polls polls, Stores stores, JsonMapper tree) {
        this.pushes = pushes;
        this.polls = polls;
        this.stores = stores;
        this.tree = tree;
    }

    /** A body as JSON. */
    JsonNode json(byte[] body) {
        try {
            return tree.readTree(new String(body, StandardCharsets.UTF_8));
        } catch (JacksonException notJson) {
            throw Refusal.invalid("", "The hook's body is not JSON, or not all of it arrived");
        }
    }

    /** Looks at the component's repository, and says in words, for whoever pushed, what that led to. */
    String follow(RegisteredComponent component, Pusher pusher) {
        String repository = component.repository()
                .orElseThrow(() -> Refusal.conflict(component.name() + " has no repository to look at"));
        try {
            return words(component, pushes.look(repository, pusher));
        } catch (Refusal away) {
            if (away.kind() != Refusal.Kind.UNAVAILABLE) {
                throw away;
            }
            polls.soon(repository, String.valueOf(away.getMessage()));
            throw Refusal.unavailable(away.getMessage() + ". It is tried again soon; no push is lost.");
        }
    }

    /** A person asks for a look at all that a component comes from. */
    String lookNow(RegisteredComponent component) {
        if (component.retired().isPresent()) {
            throw Refusal.conflict(component.name() + " is retired: none of its runs can be started");
        }
        stores.soon(component.id());
        return component.repository().isPresent() ? follow(component, Pusher.UNTOLD)
                : "Paseo looks at the stores of " + component.name() + ".\n";
    }

    /** Follows an event of the CDEvents vocabulary, as far as it says that something here is worth looking at. */
    String happened(RegisteredComponent component, String type, String source) {
        if (type.matches("dev\\.cdevents\\.(change\\.merged|repository\\.modified|branch\\.(created|deleted))\\..*")) {
            return follow(component, Pusher.UNTOLD);
        }
        if (type.matches("dev\\.cdevents\\.artifact\\.(packaged|published)\\..*")) {
            stores.soon(component.id());
            return "Paseo looks at the stores of " + component.name() + ".\n";
        }
        return "Paseo took note of " + type + ": it starts nothing here.\n";
    }

    /** What came of it, for whoever pushed: what has started first, and not more lines than somebody reads. */
    private static String words(RegisteredComponent component, Pushes.Seen seen) {
        List<String> lines = new ArrayList<>();
        for (Pushes.Moved each : seen.moved()) {
            each.led().run().ifPresent(run -> lines.add("Paseo started " + each.component() + "#" + run.number()
                    + " for " + each.name() + ": it will be " + run.version() + "."));
        }
        for (Pushes.Moved each : seen.moved()) {
            each.led().why().ifPresent(why -> lines
                    .add("Paseo started nothing of " + each.component() + " for " + each.name() + ": " + why + "."));
            each.warnings().forEach(warning -> lines.add("Please change " + warning + "."));
        }
        seen.gone().forEach(
                each -> lines.add("Paseo noticed that " + each.branch() + " of " + each.component() + " was deleted"
                        + (each.preview() ? ": its preview is taken away." : ": it starts nothing any more.")));
        seen.unread().forEach(each -> lines.add("Paseo looks again soon: " + each.sentence() + "."));
        seen.many().forEach(each -> lines.add(each + "."));
        if (lines.isEmpty()) {
            return "Nothing has moved since Paseo looked last: what was pushed was noticed already. What came of "
                    + "it: paseo why "
                    + component.name() + "\n";
        }
        String shown = String.join("\n", lines.stream().distinct().limit(MOST_LINES).toList()) + "\n";
        return lines.size() > MOST_LINES
                ? shown + "And " + (lines.size() - MOST_LINES) + " more: paseo why " + component.name() + "\n" : shown;
    }
}

package dev.paseo.service.piece;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.problem.Refusal;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The pieces of a component's pipeline file, and those who use them. */
@RestController
@RequestMapping("/api/v1/components/{name}/pieces")
class PieceController {

    /**
     * What is tried: one of both.
     *
     * @param branch whose file has the pieces
     * @param text   of a file that has them
     */
    record PieceTrialRequest(Optional<String> branch, Optional<@Size(max = 1_000_000) String> text) {}

    private final Components components;
    private final PieceUsers users;
    private final PieceTrials trials;
    private final PipelineFiles files;

    PieceController(Components components, PieceUsers users, PieceTrials trials, PipelineFiles files) {
        this.components = components;
        this.users = users;
        this.trials = trials;
        this.files = files;
    }

    /** The pieces that others may use, in the newest version that they can take. */
    @GetMapping
    PieceUsers.PiecesView pieces(@AuthenticationPrincipal Person person, @PathVariable String name) {
        return users.pieces(look(person, name), seenBy(person));
    }

    /** Who uses them, in which version, and what the next run of each would take. */
    @GetMapping("/users")
    List<PieceUsers.UserView> users(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam Optional<String> piece) {
        return users.users(look(person, name), seenBy(person)).stream()
                .filter(user -> piece.isEmpty() || piece.get().equals(user.piece())).toList();
    }

    /**
     * Reads the file of each who uses them as it would be with a new version, and says what would be different or
     * broken; nothing is kept, and nothing is started.
     */
    @PostMapping("/trials")
    PieceTrials.TrialView attempt(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody PieceTrialRequest request) {
        RegisteredComponent component = look(person, name);
        if (request.branch().isPresent() == request.text().isPresent()) {
            throw Refusal.invalid("/branch", "Say which branch has the new version, or give its text: one of both");
        }
        String text = request.text().orElseGet(() -> {
            String branch = request.branch().orElseThrow();
            String commit = Optional.ofNullable(components.heads(component.id()).get(branch))
                    .orElseThrow(() -> Refusal.notFound(name + " has no branch " + branch));
            return files.written(components.readFile(component, commit).id());
        });
        return trials.attempt(component, text, seenBy(person));
    }

    private RegisteredComponent look(Person person, String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return components.named(name);
    }

    private static Predicate<String> seenBy(Person person) {
        return component -> person.may(Action.LOOK, Optional.of(component), Optional.empty());
    }
}

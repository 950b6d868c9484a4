package dev.paseo.service.savedview;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Views of the console that were kept. */
@RestController
@RequestMapping("/api/v1/views")
class SavedViewController {

    /**
     * A page with what it asks for, under a name.
     *
     * @param address its path and query in the console, such as {@code /runs?status=failed&since=7d}
     * @param shared  whether everybody has it
     * @param by      who kept it
     */
    record SavedView(long id, String name, String address, boolean shared, String by) {}

    /** What is to be kept; a view of the same name that one has is replaced. */
    record ViewRequest(@NotBlank @Size(max = 80) String name,
            @NotBlank @Size(max = 1000) @Pattern(regexp = "/([A-Za-z0-9?][^\\s\\\\]*)?",
                    message = "should be a path of the console, such as /runs?status=failed") String address,
            boolean shared) {}

    private final SavedViews views;

    SavedViewController(SavedViews views) {
        this.views = views;
    }

    /** Views that were kept: your own, and those that are for everybody. */
    @GetMapping
    List<SavedView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return views.seenBy(person).stream()
                .map(row -> new SavedView(row.id(), row.name(), row.address(), row.shared(), row.account())).toList();
    }

    /** Keeps a view under a name; at most 100 for each account. */
    @PutMapping
    List<SavedView> keep(@AuthenticationPrincipal Person person, @Valid @RequestBody ViewRequest request) {
        Permission.require(person, Action.LOOK);
        Permission.unlimited(person, "keep or drop views");
        views.keep(person, request.name(), request.address(), request.shared());
        return all(person);
    }

    /** Drops a view: your own, or one for everybody where you manage accounts. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void drop(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        Permission.unlimited(person, "keep or drop views");
        views.drop(person, id);
    }
}

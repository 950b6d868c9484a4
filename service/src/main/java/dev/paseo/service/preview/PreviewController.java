package dev.paseo.service.preview;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.text.Word;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/previews")
class PreviewController {

    /**
     * A preview environment.
     *
     * @param owner    who pushed last
     * @param removing why it is being taken away
     * @param status   of its newest deployment
     */
    record PreviewView(String environment, String component, String branch, String owner, Optional<String> url,
            Optional<String> version, Optional<Long> deployment,
            Optional<String> status, Instant createdAt, Instant pushedAt, Optional<String> removing) {}

    private final PreviewRemovals previews;
    private final Deployments deployments;
    private final Places places;

    PreviewController(PreviewRemovals previews, Deployments deployments, Places places) {
        this.previews = previews;
        this.deployments = deployments;
        this.places = places;
    }

    /** Lists preview environments. */
    @GetMapping
    List<PreviewView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return previews.there().stream().map(this::view).toList();
    }

    private PreviewView view(PreviewRow row) {
        Environments.Place place = previews.place(row);
        Optional<Deployment> newest = deployments.newest(place.id(), 1).stream().findFirst();
        return new PreviewView(row.environment(), row.component(), row.branch(), row.owner(), place.url(),
                places.live(place).map(Versions.Version::number),
                newest.map(Deployment::id), newest.map(Deployment::status).map(Word::of), row.createdAt(),
                row.pushedAt(),
                Optional.ofNullable(row.removing()));
    }

    /** Removes a preview now. */
    @DeleteMapping("/{environment}")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void remove(@AuthenticationPrincipal Person person, @PathVariable String environment) {
        PreviewRow row = previews.named(environment);
        Permission.require(person, Action.START_RUN, "take away previews of " + row.component(),
                Optional.of(row.component()), Optional.empty());
        previews.remove(row, person.name() + " asked for it", person.name());
    }
}

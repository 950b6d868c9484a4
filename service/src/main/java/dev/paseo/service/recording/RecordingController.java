package dev.paseo.service.recording;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.deployment.DeploymentSummaries;
import dev.paseo.service.deployment.DeploymentViews.DeploymentSummary;
import dev.paseo.service.deployment.NamedPlaces;
import dev.paseo.service.environment.Environments.Place;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What was live before Paseo. */
@RestController
@RequestMapping("/api/v1/places/{component}/{environment}/record")
class RecordingController {

    record RecordRequest(String version, String reason) {}

    private final Recording recording;
    private final NamedPlaces places;
    private final DeploymentSummaries summaries;

    RecordingController(Recording recording, NamedPlaces places, DeploymentSummaries summaries) {
        this.recording = recording;
        this.places = places;
        this.summaries = summaries;
    }

    /** Writes down what is live already, where nothing was deployed by Paseo yet. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    DeploymentSummary add(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String environment,
            @RequestBody RecordRequest request) {
        Place place = places.place(person, Action.EDIT_ENVIRONMENT,
                "record what is live of " + NamedPlaces.here(component, environment),
                component, environment);
        return summaries.of(
                recording.record(place, places.version(place, request.version()), person, request.reason()));
    }
}

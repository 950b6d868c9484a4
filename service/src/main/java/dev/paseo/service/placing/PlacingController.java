package dev.paseo.service.placing;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.language.environment.EnvironmentsWriter;
import dev.paseo.language.environment.Placing;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Exporting;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Helps to give a component hosts: offers what is there, and writes the environments file that would be loaded. */
@RestController
@RequestMapping("/api/v1/components/{name}/places")
class PlacingController {

    /** A host that may be taken; {@code url} is an address there that nobody has, {@code taken} whether it has it. */
    record OfferView(String host, String url, List<String> others, boolean taken) {}

    /** An environment and the hosts that may be taken in it: its own, and those of none yet. */
    record OffersView(String environment, List<OfferView> hosts) {}

    /** A place that another begins as. */
    record LikeRequest(String component, String environment) {}

    /**
     * Places of a component.
     *
     * @param places    environment to host to the address at which it answers there; an empty address: none
     * @param like      environment to the place whose variables and names of secrets it has there as well
     * @param variables environment to the variables that differ from those
     */
    record PlacesRequest(Map<String, Map<String, String>> places, Optional<Map<String, LikeRequest>> like,
            Optional<Map<String, Map<String, String>>> variables) {}

    private final Exporting exporting;
    private final Environments environments;
    private final Components components;

    PlacingController(Exporting exporting, Environments environments, Components components) {
        this.exporting = exporting;
        this.environments = environments;
        this.components = components;
    }

    /** The hosts that a component may be given in each environment, with free addresses. */
    @GetMapping("/offers")
    List<OffersView> offers(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        String component = components.named(name).name();
        return new Placing(exporting.file()).offers(component, environments.standingHosts()).entrySet().stream()
                .map(each -> new OffersView(each.getKey(), each.getValue().stream()
                        .map(offer -> new OfferView(offer.host(), offer.url(), offer.others(), offer.taken()))
                        .toList()))
                .toList();
    }

    /** Writes the environments file with these places of a component; loading it is another act. Changes nothing. */
    @PostMapping("/draft")
    Exporting.TextView draft(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody PlacesRequest request) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        String component = components.named(name).name();
        EnvironmentsFile file = exporting.file();
        for (Map.Entry<String, Map<String, String>> place : new LinkedHashMap<>(request.places()).entrySet()) {
            try {
                Optional<LikeRequest> like = request.like().map(all -> all.get(place.getKey()));
                file = new Placing(file).with(component, place.getKey(), place.getValue(),
                        like.map(each -> new Placing.Like(each.component(), each.environment())),
                        request.variables().map(all -> all.get(place.getKey())).orElse(Map.of()));
            } catch (Placing.NotFree taken) {
                throw Refusal.invalid("/places/" + place.getKey(), String.valueOf(taken.getMessage()));
            }
        }
        return new Exporting.TextView(EnvironmentsWriter.write(file), exporting.digest());
    }
}

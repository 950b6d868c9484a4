package dev.paseo.service.place;

import dev.paseo.core.deployment.HostContent;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments.HostSettings;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceSettings;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.DeploymentMapper.HostContentRow;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** What hosts have, and what they would be given: version, settings and secrets together. */
@Component
public class HostContents {

    public static final TypeReference<Map<String, Long>> REVISIONS = new TypeReference<>() {};

    private static final Pattern NAMED = Pattern.compile("\\{(url|host\\.url|variables\\.[^{}]*)}");

    private final DeploymentMapper mapper;
    private final Environments environments;
    private final Secrets secrets;
    private final Json json;

    HostContents(DeploymentMapper mapper, Environments environments, Secrets secrets, Json json) {
        this.mapper = mapper;
        this.environments = environments;
        this.secrets = secrets;
        this.json = json;
    }

    /** What each host of the place has; those that have nothing, or are not known, are not in it. */
    public Map<String, HostContent> had(Place place) {
        return mapper.contents(place.id()).stream().collect(Collectors.toMap(HostContentRow::host,
                row -> recorded(place, row.version(), row.settingsRevision(), row.secretRevisions(), row.host())));
    }

    /** What a deployment gave, or gives, each host that takes part. */
    public HostContent given(Place place, Deployment row, String host) {
        return recorded(place, mapper.numberOf(row.versionId()), row.settingsRevision(), row.secretRevisions(), host);
    }

    private HostContent recorded(Place place, String version, long settingsRevision, String secretRevisions,
            String host) {
        PlaceSettings settings = environments.settings(place.id(), settingsRevision);
        return new HostContent(version, variables(settings, own(place, settings, host)),
                HostContent.revisions(json.read(secretRevisions, REVISIONS), host));
    }

    /**
     * Name to revision of the secrets that a deployment of this version would be given now, those of single hosts
     * beside.
     */
    public Map<String, Long> secrets(Place place, Versions.Version version) {
        return secrets.revisionsWithHosts(version.recipe().map(recipe -> recipe.secrets()).orElse(List.of()),
                place.componentId(), place.environmentId());
    }

    /** What a deployment of this version would give each host if it began now. */
    public Function<String, HostContent> now(Place place, Versions.Version version) {
        PlaceSettings settings = environments.settings(place.id(), place.settingsRevision());
        Map<String, Long> revisions = secrets(place, version);
        return host -> new HostContent(version.number(),
                variables(settings, Optional.ofNullable(settings.hosts().get(host))),
                HostContent.revisions(revisions, host));
    }

    /** What is set for a host in these settings; for one that came to the place later, what is set for it now. */
    public Optional<HostSettings> own(Place place, PlaceSettings settings, String host) {
        return Optional.ofNullable(settings.hosts().get(host))
                .or(() -> Optional
                        .ofNullable(environments.settings(place.id(), place.settingsRevision()).hosts().get(host)));
    }

    /**
     * What the recipe of what is live names and what is not set for this host, as a sentence; empty where all of it is.
     */
    public Optional<String> lacks(Place place, Versions.Version version, String host, long settingsRevision) {
        PlaceSettings settings = environments.settings(place.id(), settingsRevision);
        List<String> unset = unset(version.recipe().orElseThrow(), settings, own(place, settings, host));
        return unset.isEmpty() ? Optional.empty()
                : Optional.of("the recipe of " + version.component() + " " + version.number() + " names {"
                        + unset.getFirst() + "}, but in "
                        + place.environment() + " " + words(unset.getFirst()) + " is set for " + host);
    }

    /**
     * What the recipe names in its checks, and in where its artifacts lie, and what is not set for this host: such as
     * {@code variables.PORT} or {@code host.url}.
     */
    private static List<String> unset(Recipe recipe, Environments.PlaceSettings settings,
            Optional<Environments.HostSettings> own) {
        Map<String, String> words = new LinkedHashMap<>(settings.variables());
        own.ifPresent(more -> words.putAll(more.variables()));
        Set<String> known = words.keySet().stream().map(name -> "variables." + name)
                .collect(Collectors.toCollection(HashSet::new));
        settings.url().ifPresent(url -> known.add("url"));
        own.flatMap(Environments.HostSettings::url).ifPresent(url -> known.add("host.url"));
        List<String> texts = new ArrayList<>(recipe.installed().values());
        Stream.concat(recipe.eachHost().stream(), recipe.whole().stream()).forEach(check -> {
            check.http().or(check::port).or(() -> check.metric().map(Recipe.Metric::address)).ifPresent(texts::add);
            check.contains().ifPresent(texts::add);
            texts.addAll(check.header().values());
            texts.addAll(check.json().values());
        });
        return texts.stream().flatMap(text -> NAMED.matcher(text).results()).map(found -> found.group(1))
                .filter(name -> !known.contains(name) && !name.startsWith("variables.PASEO_")).distinct().toList();
    }

    private static String words(String name) {
        return name.startsWith("variables.") ? "no variable " + name.substring("variables.".length())
                : "no address (url)";
    }

    private static Map<String, String> variables(PlaceSettings settings, Optional<HostSettings> own) {
        Map<String, String> variables = new LinkedHashMap<>(settings.variables());
        own.ifPresent(more -> variables.putAll(more.variables()));
        settings.url().ifPresent(url -> variables.put("url", url));
        own.flatMap(HostSettings::url).ifPresent(url -> variables.put("host.url", url));
        own.flatMap(HostSettings::side).ifPresent(side -> variables.put("side", side));
        return variables;
    }
}

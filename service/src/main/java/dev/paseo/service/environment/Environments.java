package dev.paseo.service.environment;

import dev.paseo.core.environment.Rules;
import dev.paseo.language.NearestName;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.EnvironmentMapper.EnvironmentRow;
import dev.paseo.service.environment.EnvironmentMapper.PlaceRow;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Environments and places, as others look them up. */
@Component
public class Environments {

    /** An environment with the criteria of the gate before it. */
    public record Environment(long id, String name, String zone, Rules rules, long rulesRevision) {}

    /**
     * One component in one environment.
     *
     * @param zone          the environment's
     * @param rulesRevision of the rules that are in force in the environment
     */
    public record Place(long id, long environmentId, String environment, String zone, long rulesRevision,
            long componentId, String component, Optional<String> url,
            long settingsRevision, Optional<Long> liveDeployment, Optional<String> liveSide,
            Optional<String> actingHost, Optional<Instant> retired) {}

    /**
     * A host of a place.
     *
     * @param maintenance why it is drained and not counted
     * @param servedBy    the agent that reaches it, where it has none of its own
     */
    public record PlaceHost(long id, String name, Optional<String> url, Optional<String> side,
            Optional<String> maintenance, Optional<Long> servedBy) {}

    /** What is set for a place. */
    public record PlaceSettings(int format, Optional<String> url, Map<String, String> variables,
            Map<String, HostSettings> hosts, List<String> secrets,
            Optional<String> acting) {}

    /** What is set for one of its hosts. */
    public record HostSettings(Optional<String> url, Map<String, String> variables, Optional<String> side,
            Optional<Ssh> ssh) {}

    /**
     * How a host without an agent is reached.
     *
     * @param key     name of the secret with the private key
     * @param hostKey the only key that the host may show, as in a known_hosts file
     * @param folder  where recipes work on it
     */
    public record Ssh(String address, int port, String user, String key, String hostKey, String folder) {}

    private static final int MOST_PARSED = 500;

    private final EnvironmentMapper mapper;
    private final Json json;
    private final ServiceClock clock;
    private final StoredRules stored;
    private final Map<String, Rules> parsed = new ConcurrentHashMap<>();

    Environments(EnvironmentMapper mapper, Json json, ServiceClock clock, StoredRules stored) {
        this.mapper = mapper;
        this.json = json;
        this.clock = clock;
        this.stored = stored;
    }

    private static String key(long environment, long revision) {
        return environment + " " + revision;
    }

    /** Rules of a revision never change, and reading them takes longer than judging by them. */
    private Rules rules(EnvironmentRow row) {
        if (parsed.size() > MOST_PARSED) {
            parsed.clear();
        }
        return parsed.computeIfAbsent(key(row.id(), row.rulesRevision()), key -> stored.read(row.rules()));
    }

    private Environment known(EnvironmentRow row) {
        return new Environment(row.id(), row.name(), row.zone(), rules(row), row.rulesRevision());
    }

    /** The environment of a place; of rules that were read before, the database is not asked again. */
    public Environment of(Place place) {
        Rules rules = parsed.get(key(place.environmentId(), place.rulesRevision()));
        return rules == null ? byId(place.environmentId())
                : new Environment(place.environmentId(), place.environment(), place.zone(), rules,
                        place.rulesRevision());
    }

    /** How many hosts the places of each have, by its name, in their order. */
    public Map<String, Integer> hostCounts() {
        Map<String, Integer> hosts = new LinkedHashMap<>();
        mapper.all().forEach(row -> hosts.put(row.name(), row.hosts()));
        return hosts;
    }

    /** The rules that were in force then. */
    public Rules rulesAsOf(long environment, Instant moment) {
        return mapper.rulesAsOf(environment, moment).map(stored::read).orElse(Rules.NONE);
    }

    public List<Environment> all() {
        return mapper.all().stream().map(this::known).toList();
    }

    /** Of all, in their order. */
    public List<String> names() {
        return mapper.names();
    }

    public Environment byId(long id) {
        return known(mapper.byId(id));
    }

    public Environment named(String name) {
        return mapper.named(name).map(this::known).orElseThrow(() -> unknown(name));
    }

    private Refusal unknown(String name) {
        return Refusal.notFound("There is no environment " + name
                + NearestName.hint(name, names()));
    }

    /** The hosts that an agent answers for and that are no preview's own. */
    public List<String> standingHosts() {
        return mapper.standingHosts();
    }

    /** A place, also one that is retired: it can still be looked at. */
    public Place place(String component, String environment) {
        return mapper.place(component, environment).map(Environments::place)
                .orElseThrow(() -> Refusal.notFound(noPlace(component, named(environment).name())));
    }

    private static String noPlace(String component, String environment) {
        return component + " has no place in " + environment + ": the environments file gives it no hosts there";
    }

    /** Why nothing can be deployed there; empty if something can. */
    public Optional<String> whyNoPlace(String component, String environment) {
        if (find(component, environment).isPresent()) {
            return Optional.empty();
        }
        List<String> known = names();
        if (!known.contains(environment)) {
            return Optional.of("there is no environment " + environment + NearestName.hint(environment, known));
        }
        return Optional.of(isRetired(component, environment) ? component + " in " + environment + " is retired"
                : noPlace(component, environment));
    }

    public boolean isRetired(String component, String environment) {
        return mapper.place(component, environment).filter(row -> row.retiredAt() != null).isPresent();
    }

    /** A place that is not retired. */
    public Optional<Place> find(String component, String environment) {
        return mapper.place(component, environment).map(Environments::place).filter(place -> place.retired().isEmpty());
    }

    public Place placeById(long id) {
        return place(mapper.placeById(id));
    }

    private static Place place(PlaceRow row) {
        return new Place(row.id(), row.environmentId(), row.environment(), row.zone(), row.rulesRevision(),
                row.componentId(), row.component(),
                Optional.ofNullable(row.url()),
                row.settingsRevision(), Optional.ofNullable(row.liveDeploymentId()),
                Optional.ofNullable(row.liveSide()), Optional.ofNullable(row.actingHost()),
                Optional.ofNullable(row.retiredAt()));
    }

    public List<PlaceHost> hosts(long place) {
        return mapper.hosts(place).stream().map(Environments::host).toList();
    }

    private static PlaceHost host(EnvironmentMapper.HostRow row) {
        return new PlaceHost(row.id(), row.name(), Optional.ofNullable(row.url()), Optional.ofNullable(row.side()),
                Optional.ofNullable(row.maintenance()),
                Optional.ofNullable(row.servedBy()));
    }

    /** A host of a place; empty where it is none, or no longer. */
    public Optional<PlaceHost> host(long place, long id) {
        return mapper.host(place, id).map(Environments::host);
    }

    public Optional<PlaceHost> host(long place, String name) {
        return mapper.hostNamed(place, name).map(Environments::host);
    }

    /**
     * Makes an environment that comes and goes, with one place on one host that another's agent serves; again, where it
     * was there before.
     */
    public Place temporary(String name, long component, String host, PlaceSettings settings, String servedBy, long by) {
        mapper.addTemporary(name, "UTC", stored.write(Rules.NONE));
        long environment = mapper.lock(name).orElseThrow();
        mapper.addPlace(environment, component);
        mapper.addHost(host);
        mapper.serve(host, servedBy);
        Place place = all(environment, component);
        mapper.lockPlace(place.id());
        String body = json.write(settings);
        if (mapper.settings(place.id(), place.settingsRevision()).filter(body::equals).isEmpty()) {
            mapper.addSettings(place.id(), place.settingsRevision() + 1, body, by, clock.now());
            mapper.changePlace(place.id(), settings.url().orElse(null), null, place.settingsRevision() + 1,
                    clock.now());
            mapper.clearHosts(place.id());
            mapper.placeHost(place.id(), host, 0, settings.url().orElse(null), null);
        }
        return all(environment, component);
    }

    private Place all(long environment, long component) {
        return place(mapper.placeOf(environment, component));
    }

    public String agentName(long id) {
        return mapper.agentName(id);
    }

    /** The name of a host, also of one that is no longer a place's. */
    public String hostName(long id) {
        return mapper.hostName(id);
    }

    /** Gates are looked at again, since what they are judged on has changed. */
    public void wakeAll() {
        mapper.wakeAll(clock.now());
    }

    public PlaceSettings settings(long place, long revision) {
        return mapper.settings(place, revision).map(body -> json.read(body, PlaceSettings.class))
                .orElseThrow(
                        () -> new IllegalStateException("place " + place + " has no settings of revision " + revision));
    }

    /**
     * The host whose agent does what is done once for a place: the one that is named, else the first; of those that are
     * not in maintenance.
     */
    public PlaceHost acting(Place place) {
        List<PlaceHost> hosts = hosts(place.id());
        List<PlaceHost> there = hosts.stream().filter(host -> host.maintenance().isEmpty()).toList();
        return there.stream().filter(host -> place.actingHost().equals(Optional.of(host.name()))).findFirst()
                .or(() -> there.stream().findFirst()).orElseGet(hosts::getFirst);
    }

    /** The environments that a version has been live in and has left by their gates onward. */
    public Set<String> passed(long version) {
        return Set.copyOf(mapper.passed(version));
    }

    /** The settings of a place as they were, the newest first. */
    List<EnvironmentMapper.RevisionRow> revisions(long place) {
        return mapper.revisions(place);
    }

    /** The rules of an environment as they were, the newest first. */
    List<EnvironmentMapper.RulesRow> rulesHistory(long environment) {
        return mapper.rulesHistory(environment);
    }
}

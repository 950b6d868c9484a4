package dev.paseo.language.environment;

import dev.paseo.language.NearestName;
import dev.paseo.language.environment.EnvironmentsFile.Environment;
import dev.paseo.language.environment.EnvironmentsFile.Host;
import dev.paseo.language.environment.EnvironmentsFile.Place;
import java.net.URI;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Gives a component hosts and addresses in an environments file, and leaves all else as it is. */
public final class Placing {

    private static final int FIRST_PORT = 8080;
    private static final int LAST_PORT = 65_535;

    private final EnvironmentsFile file;

    public Placing(EnvironmentsFile file) {
        this.file = file;
    }

    /**
     * A host that may be taken in an environment.
     *
     * @param url    an address there that no component has
     * @param others the components that are on it
     * @param taken  whether the component is on it already, in this environment
     */
    public record Offer(String host, String url, List<String> others, boolean taken) {}

    /** A place that another begins as: its variables and the names of its secrets. */
    public record Like(String component, String environment) {}

    /** What is wanted cannot be had; the message says what can. */
    public static final class NotFree extends RuntimeException {
        NotFree(String message) {
            super(message);
        }
    }

    /** A component on a host, at an address. */
    private record At(String environment, String component, String host, Optional<URI> url) {}

    private Stream<At> all() {
        return file.environments().stream().flatMap(environment -> environment.components().entrySet().stream()
                .flatMap(place -> place.getValue().hosts().entrySet().stream().map(host -> new At(environment.name(),
                        place.getKey(), host.getKey(), host.getValue().url().flatMap(Placing::address)))));
    }

    private static Optional<URI> address(String url) {
        try {
            URI address = URI.create(url);
            return address.getHost() == null ? Optional.empty() : Optional.of(address);
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }

    private static int port(URI address) {
        return address.getPort() >= 0 ? address.getPort() : "https".equals(address.getScheme()) ? 443 : 80;
    }

    /**
     * For each environment its hosts, and those of no environment yet; no address is offered twice.
     *
     * @param served the hosts that an agent answers for
     */
    public Map<String, List<Offer>> offers(String component, Collection<String> served) {
        Set<String> promised = new HashSet<>();
        Map<String, List<Offer>> offers = new LinkedHashMap<>();
        file.environments().forEach(environment -> offers.put(environment.name(),
                hosts(environment.name(), served).map(host -> offer(component, environment.name(), host, promised))
                        .toList()));
        return offers;
    }

    private Stream<String> hosts(String environment, Collection<String> served) {
        List<String> here = all().filter(at -> at.environment().equals(environment)).map(At::host).toList();
        List<String> elsewhere = all().filter(at -> !at.environment().equals(environment)).map(At::host).toList();
        return Stream.concat(here.stream(), served.stream().filter(host -> !elsewhere.contains(host))).distinct()
                .sorted();
    }

    /** Where it answers there already; else the port after those of the others. */
    private Offer offer(String component, String environment, String host, Set<String> promised) {
        Optional<At> own = all().filter(at -> at.environment().equals(environment) && at.host().equals(host)
                && at.component().equals(component)).findFirst();
        String url = own.flatMap(At::url).map(URI::toString).orElseGet(() -> free(host, promised));
        promised.add(url);
        return new Offer(host, url, others(component, host), own.isPresent());
    }

    private List<String> others(String component, String host) {
        return all().filter(at -> at.host().equals(host) && !at.component().equals(component)).map(At::component)
                .distinct().sorted().toList();
    }

    private String free(String host, Set<String> promised) {
        List<URI> others = all().filter(at -> at.host().equals(host)).flatMap(at -> at.url().stream()).toList();
        String name = others.stream().map(URI::getHost).findFirst().orElse(host);
        // Ports of others under the same name are taken too: two hosts may be one machine.
        TreeSet<Integer> taken = all().flatMap(at -> at.url().stream()).filter(url -> url.getHost().equals(name))
                .map(Placing::port).collect(Collectors.toCollection(TreeSet::new));
        int from = others.stream().mapToInt(Placing::port).max().orElse(FIRST_PORT - 1) + 1;
        for (int port = from; port <= LAST_PORT; port++) {
            String url = "http://" + name + ":" + port;
            if (!taken.contains(port) && !promised.contains(url)) {
                return url;
            }
        }
        return "http://" + name;
    }

    /**
     * The file with these hosts, and no others, for the component in an environment; variables, sides and secrets of
     * those that stay are kept.
     *
     * @param hosts to the address at which it answers there; empty: it has none
     * @throws NotFree where the environment is not there, or somebody else answers at an address
     */
    public EnvironmentsFile with(String component, String environment, Map<String, String> hosts) {
        return with(component, environment, hosts, Optional.empty(), Map.of());
    }

    /**
     * The same, where a new place begins as another.
     *
     * @param variables that differ from those of the other place
     * @throws NotFree also where there is no such place
     */
    public EnvironmentsFile with(String component, String environment, Map<String, String> hosts, Optional<Like> like,
            Map<String, String> variables) {
        Optional<Place> other = like.map(this::place);
        List<String> names = file.environments().stream().map(Environment::name).toList();
        if (!names.contains(environment)) {
            throw new NotFree("There is no environment " + environment + NearestName.hint(environment, names));
        }
        if (hosts.isEmpty()) {
            throw new NotFree("At least one host of " + environment + " is needed for " + component);
        }
        hosts.forEach((host, url) -> refuseTaken(component, environment, host, url));
        return new EnvironmentsFile(file.environments().stream().map(
                each -> each.name().equals(environment) ? placed(each, component, hosts, other, variables) : each)
                .toList(),
                file.previews());
    }

    private void refuseTaken(String component, String environment, String host, String url) {
        if (url.isEmpty()) {
            return;
        }
        URI wanted = address(url).filter(each -> each.getScheme().matches("https?"))
                .orElseThrow(() -> new NotFree("An address should be http://NAME:PORT or https://NAME:PORT; got “" + url
                        + "”"));
        all().filter(at -> !(at.component().equals(component) && at.environment().equals(environment)))
                .filter(at -> at.url().filter(other -> other.getHost().equals(wanted.getHost())
                        && port(other) == port(wanted)).isPresent())
                .findFirst().ifPresent(at -> {
                    throw new NotFree("The address " + wanted.getHost() + ":" + port(wanted) + " is that of "
                            + at.component() + " in " + at.environment() + "; " + free(host, Set.of()) + " is free");
                });
    }

    /** How others reach a host that has no agent of its own. */
    private Optional<EnvironmentsFile.Ssh> ssh(String host) {
        return file.environments().stream().flatMap(environment -> environment.components().values().stream())
                .flatMap(place -> Optional.ofNullable(place.hosts().get(host)).flatMap(Host::ssh).stream()).findFirst();
    }

    private Place place(Like like) {
        List<String> places = file.environments().stream()
                .filter(each -> each.components().containsKey(like.component())).map(Environment::name).toList();
        return file.environments().stream().filter(each -> each.name().equals(like.environment()))
                .flatMap(each -> Optional.ofNullable(each.components().get(like.component())).stream()).findFirst()
                .orElseThrow(() -> new NotFree(like.component() + " has no place in " + like.environment()
                        + (places.isEmpty() ? ", and none elsewhere"
                                : "; it has one in " + String.join(", ", places))));
    }

    private Environment placed(Environment environment, String component, Map<String, String> wanted,
            Optional<Place> like, Map<String, String> differing) {
        Optional<Place> before = Optional.ofNullable(environment.components().get(component));
        Map<String, Host> hosts = new LinkedHashMap<>();
        wanted.forEach((name, url) -> {
            Optional<Host> was = before.flatMap(place -> Optional.ofNullable(place.hosts().get(name)));
            hosts.put(name, new Host(Optional.of(url).filter(text -> !text.isEmpty()),
                    was.map(Host::variables).orElse(Map.of()), was.flatMap(Host::side),
                    was.flatMap(Host::ssh).or(() -> ssh(name))));
        });
        Optional<Place> kept = before.or(() -> like);
        Map<String, String> variables = new TreeMap<>(kept.map(Place::variables).orElse(Map.of()));
        like.ifPresent(place -> place.variables().forEach(variables::putIfAbsent));
        variables.putAll(differing);
        List<String> secrets = Stream.concat(kept.stream(), like.stream()).flatMap(place -> place.secrets().stream())
                .distinct().toList();
        Map<String, Place> components = new LinkedHashMap<>(environment.components());
        // Of several hosts nobody knows yet what stands before them.
        components.put(component, new Place(before.flatMap(Place::url).or(
                () -> hosts.size() == 1 ? hosts.values().iterator().next().url() : Optional.empty()), hosts,
                variables, secrets,
                before.flatMap(Place::acting).filter(hosts::containsKey)));
        return new Environment(environment.name(), environment.zone(), environment.rules(), environment.variables(),
                components);
    }
}

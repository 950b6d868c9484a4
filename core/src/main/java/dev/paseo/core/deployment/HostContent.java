package dev.paseo.core.deployment;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeSet;
import java.util.stream.Stream;

/**
 * What exactly a host was given, or would be: two hosts have the same only where all of it is the same.
 *
 * @param version   its number; the recipe is sealed in it
 * @param variables what the recipe finds there, addresses included, by name
 * @param secrets   the revision of each secret that the recipe names
 */
public record HostContent(String version, Map<String, String> variables, Map<String, Long> secrets) {

    public HostContent {
        variables = Map.copyOf(variables);
        secrets = Map.copyOf(secrets);
    }

    /**
     * Of the revisions recorded for a place, as {@code NAME} and as {@code NAME@host}, those that reach this host: its
     * own beat the place's.
     */
    public static Map<String, Long> revisions(Map<String, Long> recorded, String host) {
        Map<String, Long> revisions = new LinkedHashMap<>();
        recorded.forEach((name, revision) -> {
            if (!name.contains("@")) {
                revisions.put(name, recorded.getOrDefault(name + "@" + host, revision));
            }
        });
        return revisions;
    }

    /** The names of the variables and secrets that are not as in the other, in alphabetical order. */
    public List<String> settingsUnlike(HostContent other) {
        return new ArrayList<>(new TreeSet<>(
                Stream.concat(unlike(variables, other.variables).stream(), unlike(secrets, other.secrets).stream())
                        .toList()));
    }

    private static <T> List<String> unlike(Map<String, T> mine, Map<String, T> others) {
        TreeSet<String> names = new TreeSet<>(mine.keySet());
        names.addAll(others.keySet());
        names.removeIf(name -> Objects.equals(mine.get(name), others.get(name)));
        return List.copyOf(names);
    }
}

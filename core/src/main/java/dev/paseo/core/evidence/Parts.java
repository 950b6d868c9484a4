package dev.paseo.core.evidence;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * What a version is made of, as a list of its parts (CycloneDX) says.
 *
 * @param list each once
 */
public record Parts(List<Part> list) {

    public static final Parts NONE = new Parts(List.of());

    /**
     * One part.
     *
     * @param name    its package URL without version, qualifiers and subpath, such as {@code
     *                pkg:maven/org.example/horizon}; where it has none, its group and name
     * @param version empty: it is not told
     * @param licence SPDX identifiers or expressions, or names; empty: none is told
     */
    public record Part(String name, String version, String licence) {

        /** The name with the version behind an at sign. */
        public String exactly() {
            return version.isEmpty() ? name : name + "@" + version;
        }
    }

    /**
     * What is kept of it beside the parts themselves.
     *
     * @param unlicensed parts of which no licence is told
     */
    public record Summary(long total, long unlicensed) {}

    /**
     * A part that is not in the same versions in both.
     *
     * @param before empty: it is new
     * @param after  empty: it is gone
     */
    public record Change(String name, List<String> before, List<String> after) {}

    public Parts {
        list = List.copyOf(new LinkedHashSet<>(list));
    }

    public Summary summary() {
        return new Summary(list.size(), list.stream().filter(part -> part.licence().isEmpty()).count());
    }

    public Parts plus(Parts more) {
        List<Part> all = new ArrayList<>(list);
        all.addAll(more.list);
        return new Parts(all);
    }

    /** The names of all parts, and the names with their versions: what conditions look for. */
    public List<String> packages() {
        Set<String> names = new TreeSet<>();
        list.forEach(part -> {
            names.add(part.name());
            names.add(part.exactly());
        });
        return List.copyOf(names);
    }

    /** What is new, gone, or there in other versions, by name. */
    public List<Change> since(Parts before) {
        Map<String, Set<String>> was = versions(before);
        Map<String, Set<String>> is = versions(this);
        Set<String> names = new TreeSet<>(was.keySet());
        names.addAll(is.keySet());
        return names.stream().filter(name -> !Optional.ofNullable(was.get(name)).equals(Optional.ofNullable(is.get(
                name)))).map(name -> new Change(name, told(was.get(name)), told(is.get(name)))).toList();
    }

    private static List<String> told(@Nullable Set<String> versions) {
        return versions == null ? List.of() : List.copyOf(versions);
    }

    private static Map<String, Set<String>> versions(Parts parts) {
        Map<String, Set<String>> versions = new TreeMap<>();
        parts.list.forEach(part -> versions.computeIfAbsent(part.name(), name -> new TreeSet<>()).add(part.version()));
        return versions;
    }
}

package dev.paseo.language.check;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a service knows around a pipeline file.
 *
 * @param component    the one whose file it is
 * @param repository   whether it has one; without, its versions arrive by upload
 * @param environments name to what it follows, in their order
 * @param offers       what each agent that runs stages offers
 * @param routes       component to the environments of its route, of those whose file can be read
 * @param opened       the components whose artifacts it may take
 * @param given        the secrets that its files may name
 * @param valued       those of them that have a value for its stages
 * @param branches     those that its repository has; empty: none is known
 * @param nameNow      former name to the present one, of all components
 */
public record Surroundings(String component, boolean repository, List<String> components,
        Map<String, Follows> environments,
        List<Set<String>> offers, Map<String, Set<String>> routes,
        Set<String> opened, Set<String> given, Set<String> valued, Set<String> branches, Map<String, String> nameNow) {

    /** @param any whether one of them will do */
    public record Follows(List<String> environments, boolean any) {}

    String now(String name) {
        return nameNow.getOrDefault(name, name);
    }

    /** The environments that a component walks to; empty where its file is not known. */
    Optional<Set<String>> route(String name) {
        return Optional.ofNullable(routes.get(now(name)));
    }
}

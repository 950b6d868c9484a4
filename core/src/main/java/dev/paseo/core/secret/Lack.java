package dev.paseo.core.secret;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A secret that something names and cannot have.
 *
 * @param given whether the component may name it: then it has no value
 */
public record Lack(String name, boolean given) {

    /** What is amiss, and the command that mends it. */
    public String sentence(String component, Optional<String> environment) {
        return given
                ? name + " has no value" + environment.map(in -> " in " + in).orElse("") + ": paseo secret set " + name
                        + " --component " + component
                        + environment.map(in -> " --environment " + in).orElse("")
                : name + " was not given to " + component + ": paseo secret grant " + component + " " + name;
    }

    public static String sentences(List<Lack> lacks, String component, Optional<String> environment) {
        return lacks.stream().map(lack -> lack.sentence(component, environment)).collect(Collectors.joining("; "));
    }
}

package dev.paseo.language.environment;

import dev.paseo.core.environment.Rules;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What an environments file says, in the order of the file.
 *
 * @param previews templates of preview environments
 */
public record EnvironmentsFile(List<Environment> environments, List<Template> previews) {

    /**
     * An environment and its rules.
     *
     * @param variables of every component there; a component's own beat them
     */
    public record Environment(String name, String zone, Rules rules, Map<String, String> variables,
            Map<String, Place> components) {}

    /**
     * One component there.
     *
     * @param acting the host whose agent does what is done once for the place; else its first
     */
    public record Place(Optional<String> url, Map<String, Host> hosts, Map<String, String> variables,
            List<String> secrets, Optional<String> acting) {}

    /**
     * A host and the address at which the component answers on it.
     *
     * @param side which of the place's two sides it is on
     */
    public record Host(Optional<String> url, Map<String, String> variables, Optional<String> side, Optional<Ssh> ssh) {}

    /**
     * A host without an agent, reached by another's.
     *
     * @param agent   the agent that reaches it
     * @param key     name of the secret with the private key
     * @param hostKey the only key that the host may show, as in a known_hosts file
     */
    public record Ssh(String agent, String address, int port, String user, String key, String hostKey, String folder) {}

    /**
     * A template of preview environments.
     *
     * @param firstPort of those that they may use, one for each
     * @param most      how many there may be at once
     * @param after     how long after its last push one is removed
     * @param promotion environment with whose promotions of the branch's work it is removed
     */
    public record Template(String name, String component, String host, String url, int firstPort, int lastPort,
            int most, Optional<Duration> after,
            Optional<String> promotion, Map<String, String> variables, List<String> secrets) {}
}

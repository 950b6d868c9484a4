package dev.paseo.language.environment;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What an environments file says, in the order of the file. */
public record EnvironmentsFile(List<Environment> environments) {

    /**
     * An environment and its rules.
     *
     * @param follows  a version must have been live there and left its exit gate
     * @param branches patterns of the branches whose versions may enter; empty: trusted ones
     */
    public record Environment(
            String name, String zone, Optional<String> follows, List<String> branches, Optional<Approvals> approvals,
            Map<String, Place> components) {}

    /** One component there. */
    public record Place(Optional<String> url, Map<String, Host> hosts, Map<String, String> variables, List<String> secrets) {}

    /** A host and the address at which the component answers on it. */
    public record Host(Optional<String> url, Map<String, String> variables) {}

    /** An approval rule of the entry gate. */
    public record Approvals(String from, int count, List<String> notBy, boolean commentRequired, Optional<Duration> within) {}
}

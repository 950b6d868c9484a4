package dev.paseo.core.deployment;

import java.util.List;
import java.util.OptionalLong;

/** What a host has of which nobody knew: told from what its agent found, or left unknown. Pure. */
public final class HostDoubt {

    private HostDoubt() {}

    /**
     * One deployment whose content the host could have.
     *
     * @param asked whether there was anything to tell it by: a file that should lie there, or a check
     * @param fits  whether all of that was as it should be
     */
    public record Candidate(long deployment, boolean asked, boolean fits) {}

    /** The one deployment that what was found fits; empty where it fits none, or more than one. */
    public static OptionalLong settled(List<Candidate> candidates) {
        List<Candidate> fitting = candidates.stream().filter(Candidate::fits).toList();
        return fitting.size() == 1 && fitting.getFirst().asked() ? OptionalLong.of(fitting.getFirst().deployment())
                : OptionalLong.empty();
    }
}

package dev.paseo.core.deployment;

import java.util.List;
import java.util.Optional;

/** Which hosts are brought to what is live again: by themselves, or when somebody has them repaired. Pure. */
public final class Tending {

    private Tending() {}

    /**
     * A host, compared with what is live at its place.
     *
     * @param away  whether it is in maintenance
     * @param state how it is within the deployment that is live; empty for one that came later
     * @param given what that deployment gives it
     * @param has   what it has; empty where that is nothing, or not known
     * @param amiss whether its files differ or its checks fail
     */
    public record Host(String name, Optional<String> side, boolean away, Optional<HostState> state, HostContent given,
            Optional<HostContent> has, boolean amiss) {

        private boolean same() {
            return has.filter(given::equals).isPresent();
        }
    }

    /**
     * Whether it catches up by itself: it came late and has something else. One whose recipe failed waits for a person.
     */
    public static boolean catchesUp(Host host) {
        return !host.same() && host.state().map(HostState::late).orElse(true);
    }

    /** Those that a repair is for: on the side that has the traffic, there, and not as they should be. */
    public static List<String> differing(List<Host> hosts, Optional<String> liveSide) {
        return hosts.stream().filter(host -> !host.away() && (liveSide.isEmpty() || host.side().equals(liveSide)))
                .filter(host -> host.amiss() || !host.same()).map(Host::name).toList();
    }
}

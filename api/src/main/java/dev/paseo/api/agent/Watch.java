package dev.paseo.api.agent;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What an agent keeps an eye on, and what it says of it. */
public interface Watch {

    /**
     * What is live on the agent's host, and on those that it serves.
     *
     * @param everySeconds how often it should look
     * @param renewal      a one-time token, where the agent should take a new secret with it
     */
    record Watched(List<OnHost> hosts, int everySeconds, Optional<String> renewal) {}

    /**
     * One component on one host.
     *
     * @param installed path of each file to the SHA-256 digest that it should have, in hexadecimal
     * @param checks    asked once each time
     */
    record OnHost(long place, long host, long deployment, Map<String, String> installed, List<Assignment.Check> checks,
            Optional<Assignment.Ssh> ssh) {}

    /** @param diskFree bytes left where the host's folder is */
    record Report(List<Seen> seen, long diskFree, long diskTotal) {}

    /**
     * What was found.
     *
     * @param differing path of each file to the digest that it has instead, empty where there is none
     * @param failing   why the first failing check failed
     */
    record Seen(long place, long host, long deployment, Map<String, String> differing, Optional<String> failing) {}
}

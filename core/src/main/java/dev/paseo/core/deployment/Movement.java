package dev.paseo.core.deployment;

import java.time.Duration;
import java.util.List;
import java.util.Optional;

/**
 * One part of a deployment's plan; they are done in their order, each after the one before has ended well.
 *
 * @param hosts  of a batch, or those that are cleared
 * @param length of a pause, of keeping an eye on it
 * @param share  percent of the traffic that the new side gets
 * @param name   of a test; of facts, their condition
 */
public record Movement(What what, List<String> hosts, Optional<Duration> length, int share, Optional<String> name) {

    /** What is done. */
    public enum What {
        /** The recipe's {@code once-before}. */
        ONCE_BEFORE,
        /** These hosts are installed, then each is checked. */
        INSTALL,
        /** These hosts have it already, and are only checked. */
        VERIFY,
        /** Nothing happens for a while. */
        PAUSE,
        /** Traffic is moved to the new side. */
        TRAFFIC,
        /** Hosts and whole are checked again and again for a while; the first failure ends it. */
        WATCH,
        /** A condition over facts has to hold. */
        FACTS,
        /** A person is asked whether it goes on. */
        QUESTION,
        /** The recipe's {@code once-after}. */
        ONCE_AFTER,
        /** The whole is checked. */
        WHOLE,
        /** It is live. */
        LIVE,
        /** A test of what is live. */
        TEST,
        /** The walk may go on, and others hear of it. */
        SETTLED,
        /** What these hosts still have of the version before is removed. */
        CLEAR
    }

    public Movement {
        hosts = List.copyOf(hosts);
    }

    static Movement of(What what) {
        return new Movement(what, List.of(), Optional.empty(), 0, Optional.empty());
    }

    static Movement hosts(What what, List<String> hosts) {
        return new Movement(what, hosts, Optional.empty(), 0, Optional.empty());
    }

    static Movement lasting(What what, Duration length) {
        return new Movement(what, List.of(), Optional.of(length), 0, Optional.empty());
    }

    static Movement share(int percent) {
        return new Movement(What.TRAFFIC, List.of(), Optional.empty(), percent, Optional.empty());
    }

    static Movement facts(String condition) {
        return new Movement(What.FACTS, List.of(), Optional.empty(), 0, Optional.of(condition));
    }

    static Movement test(String name) {
        return new Movement(What.TEST, List.of(), Optional.empty(), 0, Optional.of(name));
    }
}

package dev.paseo.language.file;

import dev.paseo.core.run.OnFailures;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * How a version is deployed, the same in every environment.
 *
 * @param artifacts  what it deploys
 * @param bring      patterns of the commit's files that are sealed with the version
 * @param installed  artifact name to where it lies on a host afterwards, watched for drift
 * @param requires   component name to the versions of it that must be live in the same environment
 * @param parts      its commands
 * @param secrets    the only secrets that its commands see
 * @param eachHost   checks of each host, by the host's own agent
 * @param whole      checks of the place as a whole
 * @param afterwards what follows once it is live
 * @param onFailure  what a failure leads to
 * @param noWayBackBefore number of the version with which an irreversible change came: nothing goes back past it
 */
public record Recipe(List<String> artifacts, List<String> bring, Map<String, String> installed,
        Map<String, String> requires, Strategy strategy,
        Parts parts, List<String> secrets, List<Check> eachHost, List<Check> whole, Afterwards afterwards,
        Failure onFailure,
        Optional<String> noWayBackBefore) {

    /** Its commands, each {@code sh -e} in a shell of its own. */
    public record Parts(List<Command> onceBefore, List<Command> onEachHost, List<Command> onceAfter,
            List<Command> traffic, List<Command> removal) {}

    /**
     * One command.
     *
     * @param name    what it is called in logs
     * @param timeout after it the command and all that it started is ended, and has failed
     */
    public record Command(String name, String command, Duration timeout) {

        /** What holds where a command says nothing. */
        public static final Duration TIMEOUT = Duration.ofMinutes(10);

        /** A command that says nothing else; so versions were sealed before there was a timeout to say. */
        public static Command valueOf(String command) {
            return new Command(command.lines().findFirst().orElse(command), command, TIMEOUT);
        }
    }

    /**
     * What follows once it is live.
     *
     * @param keepChecking how long a failing check takes going live back
     * @param tests        what is run then, by name
     */
    public record Afterwards(Optional<Duration> keepChecking, Map<String, Test> tests) {}

    /** Commands run against what is live, and their report files. */
    public record Test(List<Command> steps, Map<PipelineFile.Report, List<String>> reports, OnFailures onFailures) {
        public Test {
            // Versions sealed before this was asked.
            onFailures = onFailures == null ? OnFailures.PASS : onFailures;
        }
    }

    /** What a failed deployment leads to. */
    public enum Failure { UNDO, STOP }

    /** The order of the hosts; of the settings, those of its kind. */
    public record Strategy(Kind kind, int batch, Duration pause, boolean reversed, int mayFail, List<Share> shares,
            Duration oldSideStays) {

        /** In which order hosts get a version. */
        public enum Kind { TOGETHER, ROLLING, BLUE_GREEN, CANARY }

        public static final Strategy TOGETHER = new Strategy(Kind.TOGETHER, 1, Duration.ZERO, false, 0, List.of(),
                Duration.ZERO);
    }

    /**
     * @param facts a condition that has to hold before more traffic comes
     * @param asked whether a person says that it goes on
     */
    public record Share(int percent, Duration stay, Optional<String> facts, boolean asked) {}

    /**
     * A check; exactly one of the first four is given.
     *
     * @param http      an address that is asked
     * @param command   a command that ends with exit status 0
     * @param port      host:port that takes a TCP connection
     * @param metric    a number of a Prometheus endpoint
     * @param status    of the answer
     * @param contains  a text in its body
     * @param header    header name to a text in its value
     * @param json      path of a field, its names joined by dots, to its value as text
     * @param redirects how many may be followed
     * @param limits    what the number may be
     */
    public record Check(Optional<String> http, Optional<String> command, Optional<String> port, Optional<Metric> metric,
            int status, Optional<String> contains,
            Map<String, String> header, Map<String, String> json, Optional<Integer> redirects, Duration within) {

        /** Versions were sealed when there was only one kind of check, and no such maps. */
        public Check {
            header = Objects.requireNonNullElse(header, Map.of());
            json = Objects.requireNonNullElse(json, Map.of());
        }
    }

    /** A sample of a Prometheus endpoint, with its labels as the endpoint writes them, and its bounds. */
    public record Metric(String address, String name, Optional<Double> atLeast, Optional<Double> atMost) {}

    /** The same for a version whose artifacts were not known when the file was written. */
    public Recipe deploying(List<String> names) {
        return artifacts.isEmpty()
                ? new Recipe(names, bring, installed, requires, strategy, parts, secrets, eachHost, whole, afterwards,
                        onFailure, noWayBackBefore)
                : this;
    }
}

package dev.paseo.api.agent;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Work, leased to one agent.
 *
 * @param work         identifies the work
 * @param fence        the number of this lease; results under an older one are refused
 * @param leaseToken   reaches this work's source, bytes, secrets and log, and nothing else
 * @param leaseSeconds how long the lease lasts without a heartbeat
 * @param variables    what every step finds in its environment
 * @param secrets      secrets by name: environment variables too, masked in every log line
 * @param steps        run in this order, each {@code sh -e} in a shell of its own, until one fails
 * @param stage        for a stage: the files that it starts from and those that it leaves
 * @param bundle       digest of the archive of the files that the recipe brought
 * @param artifacts    what lies under {@code $PASEO_ARTIFACTS/NAME/} before the first step
 * @param checks       asked after the last step
 * @param place        for work of a deployment: what else there is to it
 * @param untrusted    it comes of a branch that is not trusted: it is carried out within walls, or not at all
 */
public record Assignment(
        long work, long fence, String leaseToken, int leaseSeconds, Kind kind, Map<String, String> variables,
        Map<String, String> secrets, List<Step> steps, Optional<Stage> stage, Optional<String> bundle,
        List<Artifact> artifacts, List<Check> checks, Optional<OfPlace> place, boolean untrusted) {

    /** What the work is for. */
    public enum Kind {
        STAGE, INSTALL, CHECK, UNDO, REMOVE, WATCH, CLEAR, ONCE_BEFORE, ONCE_AFTER, TRAFFIC, TRAFFIC_BACK, WHOLE,
        WATCH_WHOLE, TEST
    }

    /** One command; at most {@code timeoutSeconds} long, tried up to {@code retries} times more when it fails. */
    public record Step(int position, String name, String command, long timeoutSeconds, int retries) {}

    /**
     * The files of a stage, whose workspace is a fresh checkout of the commit.
     *
     * @param timeoutSeconds how long it may take from when an agent has it: fetching, its steps, and sending what it
     *                       leaves
     * @param inputs         archives that earlier stages of the run left, unpacked into the workspace
     * @param takes          artifacts of other components
     * @param reuse          folders kept from run to run
     * @param files          patterns of what the stages after it find in their workspaces
     * @param keep           files that become artifacts once all steps have passed
     * @param reports        report files, read also when a step failed
     */
    public record Stage(long timeoutSeconds, List<Input> inputs, List<Take> takes, Optional<Reuse> reuse,
            List<String> files, List<Keep> keep,
            List<Report> reports) {}

    /** A tar archive that the named stage left. */
    public record Input(String stage, String digest) {}

    /** A file of another component's version, put into a folder of the workspace. */
    public record Take(String component, String version, String into, Artifact file) {}

    /** The folders are restored where files matching {@code key} are as they were when they were kept. */
    public record Reuse(List<String> key, List<String> folders) {}

    /** What a report is, in the pipeline file's word, and where it lies. */
    public record Report(String kind, List<String> paths) {}

    /**
     * The file at {@code path} below the workspace becomes the artifact {@code name}. A pattern must match one file.
     */
    public record Keep(String name, String path) {}

    /** A file of the version, named by the SHA-256 of its bytes in hexadecimal. */
    public record Artifact(String name, String fileName, String digest, long size) {}

    /**
     * A check; {@code target} is an address, a command, a host:port or the address of a Prometheus endpoint.
     *
     * @param contains     a text in the body of the answer
     * @param header       header name to a text in its value
     * @param json         path of a field, its names joined by dots, to its value as text
     * @param redirects    how many may be followed
     * @param withinMillis until when it is asked again; a command may take that long
     */
    public record Check(CheckKind kind, String target, int status, Optional<String> contains,
            Map<String, String> header, Map<String, String> json,
            int redirects, Optional<Limits> limits, long withinMillis) {}

    /** What is checked. */
    public enum CheckKind { HTTP, COMMAND, PORT, METRIC }

    /** The number of this name, with its labels as the endpoint writes them, is within these bounds. */
    public record Limits(String name, Optional<Double> atLeast, Optional<Double> atMost) {}

    /**
     * Work of a deployment.
     *
     * @param watchSeconds how long the checks are repeated; 0: until each has been met once
     * @param reports      report files that a test leaves, read also when it failed
     * @param ssh          how the host is reached, where it has no agent of its own
     */
    public record OfPlace(long watchSeconds, List<Report> reports, Optional<Ssh> ssh) {}

    /**
     * A host that is reached over SSH.
     *
     * @param privateKey in OpenSSH's format
     * @param hostKey    the only key that the host may show
     * @param folder     where recipes work; told to them as PASEO_HOST_FOLDER
     */
    public record Ssh(String address, int port, String user, String privateKey, String hostKey, String folder) {}
}

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
 * @param keep         files that become artifacts once all steps have passed
 * @param source       whether the commit's files are fetched into the workspace first
 * @param bundle       digest of the archive of the files that the recipe brought
 * @param artifacts    what lies under {@code $PASEO_ARTIFACTS/NAME/} before the first step
 * @param checks       asked after the last step
 */
public record Assignment(
        long work, long fence, String leaseToken, int leaseSeconds, Kind kind, Map<String, String> variables,
        Map<String, String> secrets, List<Step> steps, List<Keep> keep, boolean source, Optional<String> bundle,
        List<Artifact> artifacts, List<HttpCheck> checks) {

    /** What the work is for. */
    public enum Kind { STAGE, INSTALL, CHECK, UNDO, REMOVE }

    /** One command; at most {@code timeoutSeconds} long. */
    public record Step(int position, String name, String command, long timeoutSeconds) {}

    /** The file at {@code path} below the workspace becomes the artifact {@code name}. A pattern must match one file. */
    public record Keep(String name, String path) {}

    /** A file of the version, named by the SHA-256 of its bytes in hexadecimal. */
    public record Artifact(String name, String fileName, String digest, long size) {}

    /** A GET request that must be answered so within this time. */
    public record HttpCheck(String address, int status, Optional<String> contains, long withinMillis) {}
}

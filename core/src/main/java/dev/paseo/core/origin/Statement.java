package dev.paseo.core.origin;

import dev.paseo.core.signature.KeyRing;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * What a signed statement says, as far as it is needed for holding it against a file: in-toto Statement 1.
 *
 * @param type          what kind of statement it is
 * @param predicateType what it says of its subjects
 */
public record Statement(String type, String predicateType, List<Subject> subjects) {

    public static final String TYPE = "https://in-toto.io/Statement/v1";
    /** How it was built: SLSA 1.0. */
    public static final String PROVENANCE = "https://slsa.dev/provenance/v1";
    /** That it went live, where and by whose decision; described in docs/reference/origin.md. */
    public static final String LIVE = "https://paseo.example/live/v1";
    /** How a run builds: what the parameters of {@link #PROVENANCE} are. */
    public static final String RUN = "https://paseo.example/run/v1";
    /** How a version arrives that was built elsewhere. */
    public static final String ARRIVAL = "https://paseo.example/arrival/v1";

    /** One of what a statement is about, by its SHA-256 in hexadecimal. */
    public record Subject(String name, String sha256) {}

    /**
     * Why the statement in an envelope is not to be believed of a file; empty where it is.
     *
     * @param keys   of whoever is trusted
     * @param sha256 of the file
     */
    public Optional<String> reasonAgainst(SignedEnvelope envelope, KeyRing keys, String sha256) {
        if (!envelope.payloadType().equals(SignedEnvelope.IN_TOTO)) {
            return Optional.of("the envelope holds " + envelope.payloadType() + ", and should hold "
                    + SignedEnvelope.IN_TOTO);
        }
        if (!envelope.good(keys)) {
            return Optional.of("the statement is not signed by this key: it was changed, or is another service's");
        }
        if (!type.equals(TYPE)) {
            return Optional.of("the statement is of the type " + type + ", and should be of " + TYPE);
        }
        return subjects.stream().anyMatch(subject -> subject.sha256().equals(sha256)) ? Optional.empty()
                : Optional.of("the statement is about another file: " + (subjects.isEmpty() ? "none" : subjects.stream()
                        .map(subject -> subject.name() + " " + subject.sha256()).collect(Collectors.joining(", "))));
    }
}

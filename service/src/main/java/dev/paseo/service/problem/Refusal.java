package dev.paseo.service.problem;

import dev.paseo.core.text.Word;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** A request that is not carried out, with what the person who asked needs to know. */
public final class Refusal extends RuntimeException {

    /** Why, as a stable code; the HTTP status follows from it. */
    public enum Kind {
        INVALID(400,
                "A field, a parameter or the whole body is not as it should be. `pointer` names the field, `errors` "
                        + "all of them. Change it and ask again."),
        SIGNED_OUT(401, "Nobody is signed in, or the token or session is no longer good; `detail` says why. Sign in."),
        NOT_ALLOWED(403, "The account may not do this. `detail` says who may, or which role it takes."),
        NOT_FOUND(404, "There is nothing of that name or number; `detail` suggests the nearest name."),
        CONFLICT(409, "Not as things stand: the state, a rule or somebody else's change is against it. `detail` says "
                + "what would have to change."),
        WAITS(409, "Nothing is changed yet: it loosens a rule and waits for a second person, whom `detail` names."),
        DAMAGED(409, "Kept bytes no longer have their digest. They are not given out until they are mended."),
        GONE(410, "An agent's lease has ended, or its work was given to another agent. The agent drops the work."),
        TOO_LARGE(413, "More than is taken; `detail` says how much is."),
        UNPROCESSABLE(422, "The content can be read and is not what it should be, such as an archive with a path "
                + "outside its folder."),
        TOO_MANY(429, "Too many requests, or too many failed tries to sign in. `Retry-After` says how many seconds to "
                + "wait."),
        UNAVAILABLE(503, "The database, a repository or a store does not answer. Nothing was half done. Ask again, "
                + "after `Retry-After` where it is given."),
        NO_ROOM(507, "The disk of the service is full. Nothing was half done. An operator makes room."),
        FORGED(403, "The request lacks the proof that it came from the console. Load the page again."),
        INTERNAL(500, "Something failed inside Paseo. `error` is its number in the service's log.");

        private final int status;
        private final String words;

        Kind(int status, String words) {
            this.status = status;
            this.words = words;
        }

        public int status() {
            return status;
        }

        /** What it means and what to do, in Markdown. */
        public String words() {
            return words;
        }

        /**
         * The stable type of its problem (RFC 9457), such as {@code /problems/not-found}: the page of this service that
         * says what it means.
         */
        public String type() {
            return "/problems/" + Word.of(this);
        }
    }

    private final Kind kind;
    private final String title;
    private final Optional<String> pointer;
    private final List<Field> fields;
    private Optional<Duration> again = Optional.empty();

    /** One field that is wrong: its JSON pointer (RFC 6901), and what it should be. */
    public record Field(String pointer, String detail) {}

    private Refusal(Kind kind, String title, String detail, Optional<String> pointer) {
        super(detail);
        this.kind = kind;
        this.title = title;
        this.pointer = pointer;
        this.fields = List.of();
    }

    /** Without what a browser's page proves. */
    public static Refusal forged(String detail) {
        return new Refusal(Kind.FORGED, "Not allowed", detail, Optional.empty());
    }

    private Refusal(List<Field> fields) {
        super(fields.stream().map(Field::detail).collect(Collectors.joining("; ")));
        this.kind = Kind.INVALID;
        this.title = "The request is not valid";
        this.pointer = Optional.of(fields.getFirst().pointer());
        this.fields = List.copyOf(fields);
    }

    /** All that is wrong with a request, at once. */
    public static Refusal invalid(List<Field> fields) {
        return new Refusal(fields);
    }

    public static Refusal invalid(String pointer, String detail) {
        return new Refusal(Kind.INVALID, "The request is not valid", detail, Optional.of(pointer));
    }

    public static Refusal unprocessable(String title, String detail) {
        return new Refusal(Kind.UNPROCESSABLE, title, detail, Optional.empty());
    }

    public static Refusal signedOut(String detail) {
        return new Refusal(Kind.SIGNED_OUT, "Sign in first", detail, Optional.empty());
    }

    public static Refusal notAllowed(String detail) {
        return new Refusal(Kind.NOT_ALLOWED, "Not allowed", detail, Optional.empty());
    }

    public static Refusal notFound(String detail) {
        return new Refusal(Kind.NOT_FOUND, "Not found", detail, Optional.empty());
    }

    public static Refusal conflict(String detail) {
        return new Refusal(Kind.CONFLICT, "Refused", detail, Optional.empty());
    }

    /** It is not done yet: somebody else agrees first. */
    public static Refusal waits(String detail) {
        return new Refusal(Kind.WAITS, "Waits for a second person", detail, Optional.empty());
    }

    /** What is kept is not what was kept. */
    public static Refusal damaged(String detail) {
        return new Refusal(Kind.DAMAGED, "Damaged", detail, Optional.empty());
    }

    /** The lease is over or belongs to another. */
    public static Refusal gone(String detail) {
        return new Refusal(Kind.GONE, "No longer yours", detail, Optional.empty());
    }

    public static Refusal tooLarge(String detail) {
        return new Refusal(Kind.TOO_LARGE, "Too large", detail, Optional.empty());
    }

    /** Whoever asks has asked too often; {@code again} is when it is worth to ask once more. */
    public static Refusal tooMany(String detail, Duration again) {
        Refusal refusal = new Refusal(Kind.TOO_MANY, "Too many", detail, Optional.empty());
        refusal.again = Optional.of(again);
        return refusal;
    }

    /** The disk is full. */
    public static Refusal noRoom(String detail) {
        return new Refusal(Kind.NO_ROOM, "No room", detail, Optional.empty());
    }

    /** Something outside does not answer. */
    public static Refusal unavailable(String detail) {
        return new Refusal(Kind.UNAVAILABLE, "Does not answer", detail, Optional.empty());
    }

    public Kind kind() {
        return kind;
    }

    String title() {
        return title;
    }

    List<Field> fields() {
        return fields;
    }

    Optional<Duration> again() {
        return again;
    }

    Optional<String> pointer() {
        return pointer;
    }
}

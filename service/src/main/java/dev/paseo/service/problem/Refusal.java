package dev.paseo.service.problem;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** A request that is not carried out, with what the person who asked needs to know. */
public final class Refusal extends RuntimeException {

    /** Why, as a stable code; the HTTP status follows from it. */
    public enum Kind {
        INVALID(400), SIGNED_OUT(401), NOT_ALLOWED(403), NOT_FOUND(404), CONFLICT(409), WAITS(409), GONE(410),
        TOO_LARGE(413), UNAVAILABLE(503), UNPROCESSABLE(422), TOO_MANY(429), DAMAGED(409), NO_ROOM(507);

        private final int status;

        Kind(int status) {
            this.status = status;
        }

        int status() {
            return status;
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

package dev.paseo.service.problem;

import java.util.UUID;
import java.io.IOException;
import java.net.URI;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import dev.paseo.core.text.Word;
import dev.paseo.language.NearestName;
import org.slf4j.Logger;
import org.springframework.beans.TypeMismatchException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.TransientDataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/**
 * Makes problem details (RFC 9457) of refusals, with a stable type, and of what went wrong in here, without telling
 * what.
 */
@RestControllerAdvice
public class ProblemAdvice extends ResponseEntityExceptionHandler {

    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);
    /** Seconds. */
    private static final String AGAIN = "5";

    private final Faults faults;

    ProblemAdvice(Faults faults) {
        this.faults = faults;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> refused(Refusal refusal) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(HttpStatusCode.valueOf(refusal.kind().status()),
                refusal.getMessage());
        detail.setTitle(refusal.title());
        detail.setType(URI.create(refusal.kind().type()));
        refusal.pointer().ifPresent(pointer -> detail.setProperty("pointer", pointer));
        if (refusal.fields().size() > 1) {
            detail.setProperty("errors", refusal.fields());
        }
        ResponseEntity.HeadersBuilder<?> answer = ResponseEntity.of(detail);
        refusal.again().ifPresent(
                again -> answer.header(HttpHeaders.RETRY_AFTER, Long.toString(Math.max(1, again.toSeconds()))));
        return answer.build();
    }

    /** The database is away, or has no room for one more: whoever asks again soon is answered. */
    @ExceptionHandler({DataAccessResourceFailureException.class, CannotCreateTransactionException.class,
            TransientDataAccessException.class})
    public ResponseEntity<ProblemDetail> away(Exception away) {
        LOG.warn("the database does not answer: {}", away.toString());
        ResponseEntity<ProblemDetail> answer = refused(
                Refusal.unavailable("The database does not answer. Nothing was half done: try again."));
        return ResponseEntity.status(answer.getStatusCode()).header(HttpHeaders.RETRY_AFTER, AGAIN)
                .body(answer.getBody());
    }

    /** Whether this says that the database is away. */
    public static boolean isAway(Throwable failed) {
        for (Throwable each = failed; each != null; each = each.getCause()) {
            if (each instanceof DataAccessResourceFailureException || each instanceof CannotCreateTransactionException
                    || each instanceof TransientDataAccessException) {
                return true;
            }
        }
        return false;
    }

    /** What no rule of a field caught: a value that cannot be kept, or a time beyond all calendars. */
    @ExceptionHandler({DataIntegrityViolationException.class, DateTimeException.class, ArithmeticException.class})
    ResponseEntity<ProblemDetail> unfit(RuntimeException unfit) {
        LOG.warn("a request has a value that cannot be kept: {}", unfit.toString());
        return refused(Refusal.invalid("", "A value is too long, or out of its range"));
    }

    /** An error of the machine: the service says so in its health, or ends where it cannot be trusted any more. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> error(Error error) {
        faults.met("a request", error);
        return broken(new IllegalStateException(error));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> broken(Exception broken) {
        if (isAway(broken)) {
            return away(broken);
        }
        if (noRoom(broken)) {
            LOG.error("the disk is full: {}", broken.toString());
            return refused(
                    Refusal.noRoom("The service's disk is full. Nothing was half done: try again when there is room."));
        }
        String number = UUID.randomUUID().toString().substring(0, 8);
        if (broken instanceof IOException || broken.getCause() instanceof IOException) {
            LOG.debug("error {}: the other side went away: {}", number, broken.getMessage());
        } else {
            LOG.error("error {}: a request could not be answered", number, broken);
        }
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(HttpStatus.INTERNAL_SERVER_ERROR,
                "Something failed inside Paseo: error " + number
                        + " in the service's log. Nothing was half done: try again.");
        detail.setProperty("error", number);
        detail.setTitle("Failed inside");
        detail.setType(URI.create(Refusal.Kind.INTERNAL.type()));
        return ResponseEntity.of(detail).build();
    }

    private static boolean noRoom(Throwable failed) {
        for (Throwable each = failed; each != null; each = each.getCause()) {
            if (each instanceof IOException && String.valueOf(each.getMessage()).contains("No space left on device")) {
                return true;
            }
        }
        return false;
    }

    /** A body that is not what is wanted: which field, and what it should be. */
    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(HttpMessageNotReadableException wrong,
            HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        for (Throwable each = wrong; each != null; each = each.getCause()) {
            if (each instanceof Refusal known) {
                return ResponseEntity.status(known.kind().status()).body(refused(known).getBody());
            }
        }
        Refusal refusal = wrong.getCause() instanceof DatabindException unfit ? unfit(unfit)
                : wrong.getCause() instanceof JacksonException
                        ? Refusal.invalid("", "The body is not JSON, or not all of it arrived")
                        : Refusal.invalid("", "The body should be JSON");
        return ResponseEntity.badRequest().body(refused(refusal).getBody());
    }

    private static Refusal unfit(DatabindException unfit) {
        if (unfit instanceof UnrecognizedPropertyException unknown) {
            List<String> known = unknown.getKnownPropertyIds() == null ? List.of()
                    : unknown.getKnownPropertyIds().stream().map(String::valueOf).sorted().toList();
            return Refusal.invalid("/" + unknown.getPropertyName(), "There is no field " + unknown.getPropertyName()
                    + NearestName.hint(unknown.getPropertyName(), known));
        }
        String path = unfit.getPath().stream().map(
                part -> part.getPropertyName() == null ? Integer.toString(part.getIndex()) : part.getPropertyName())
                .collect(Collectors.joining("/"));
        String wanted = unfit instanceof MismatchedInputException mismatched && mismatched.getTargetType() != null
                ? kind(mismatched.getTargetType()) : "of another kind";
        return Refusal.invalid(path.isEmpty() ? "" : "/" + path,
                (path.isEmpty() ? "The body" : path.replace('/', '.')) + " should be " + wanted);
    }

    private static String kind(Class<?> type) {
        if (type.isEnum()) {
            return "one of "
                    + Stream.of(type.getEnumConstants()).map(constant -> Word.of((Enum<?>) constant))
                            .collect(Collectors.joining(", "));
        }
        if (type == Boolean.class || type == boolean.class) {
            return "true or false";
        }
        if (type.isPrimitive() || Number.class.isAssignableFrom(type)) {
            return "a number";
        }
        if (type == String.class) {
            return "text";
        }
        if (type == Duration.class) {
            return "a length of time, such as PT6H (ISO 8601)";
        }
        if (type == Instant.class) {
            return "a moment, such as 2026-12-04T18:00:00Z (ISO 8601)";
        }
        return Collection.class.isAssignableFrom(type) || type.isArray() ? "a list" : "an object";
    }

    /** A part of the address, or a parameter, that is of another kind. */
    @Override
    protected ResponseEntity<Object> handleTypeMismatch(TypeMismatchException wrong, HttpHeaders headers,
            HttpStatusCode status, WebRequest request) {
        String name = wrong.getPropertyName() == null ? "A parameter" : wrong.getPropertyName();
        return answer(Refusal.invalid("/" + name, name + " should be "
                + kind(asked(wrong)) + "; got “" + wrong.getValue() + "”"));
    }

    /** What a parameter may be that need not be given is what it is where it is. */
    private static Class<?> asked(TypeMismatchException wrong) {
        if (wrong.getRequiredType() == Optional.class
                && wrong instanceof MethodArgumentTypeMismatchException argument) {
            return argument.getParameter().nested().getNestedParameterType();
        }
        return wrong.getRequiredType() == null ? Object.class : wrong.getRequiredType();
    }

    @Override
    protected ResponseEntity<Object> handleMissingServletRequestParameter(
            MissingServletRequestParameterException missing, HttpHeaders headers, HttpStatusCode status,
            WebRequest request) {
        return answer(Refusal.invalid("/" + missing.getParameterName(),
                missing.getParameterName() + " should be given, in the address after ?"));
    }

    @Override
    protected ResponseEntity<Object> handleHttpRequestMethodNotSupported(
            HttpRequestMethodNotSupportedException wrong, HttpHeaders headers, HttpStatusCode status,
            WebRequest request) {
        return ResponseEntity.status(status).headers(headers).body(body(Refusal.Kind.INVALID, status,
                wrong.getMethod() + " is not done at this address; it takes " + Optional
                        .ofNullable(wrong.getSupportedMethods()).stream().flatMap(Stream::of).sorted()
                        .collect(Collectors.joining(", "))));
    }

    private ResponseEntity<Object> answer(Refusal refusal) {
        return ResponseEntity.status(refusal.kind().status()).body(refused(refusal).getBody());
    }

    private static ProblemDetail body(Refusal.Kind kind, HttpStatusCode status, String words) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, words);
        detail.setType(URI.create(kind.type()));
        return detail;
    }

    @Override
    protected ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException wrong, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        List<Refusal.Field> fields = wrong.getBindingResult().getFieldErrors().stream()
                .map(field -> new Refusal.Field("/" + field.getField(),
                        field.getField() + " " + field.getDefaultMessage()))
                .toList();
        Refusal refusal = fields.isEmpty() ? Refusal.invalid("", wrong.getMessage()) : Refusal.invalid(fields);
        return ResponseEntity.badRequest().body(refused(refusal).getBody());
    }
}

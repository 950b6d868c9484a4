package dev.paseo.service.problem;

import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.exc.MismatchedInputException;

/** Makes problem details (RFC 9457) of refusals, with a stable type, and of what went wrong in here, without telling what. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {

    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    @ExceptionHandler
    ResponseEntity<ProblemDetail> refused(Refusal refusal) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(HttpStatusCode.valueOf(refusal.kind().status()), refusal.getMessage());
        detail.setTitle(refusal.title());
        detail.setType(URI.create("urn:paseo:problem:" + refusal.kind().name().toLowerCase(Locale.ROOT).replace('_', '-')));
        refusal.pointer().ifPresent(pointer -> detail.setProperty("pointer", pointer));
        return ResponseEntity.of(detail).build();
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> broken(Exception broken) {
        if (broken instanceof java.io.IOException || broken.getCause() instanceof java.io.IOException) {
            LOG.debug("the other side went away: {}", broken.getMessage());
        } else {
            LOG.error("a request could not be answered", broken);
        }
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(HttpStatus.INTERNAL_SERVER_ERROR,
                "Something failed inside Paseo; its log says what. Nothing was half done: try again.");
        detail.setTitle("Failed inside");
        detail.setType(URI.create("urn:paseo:problem:internal"));
        return ResponseEntity.of(detail).build();
    }

    /** A body that is not what is wanted: which field, and what it should be. */
    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(HttpMessageNotReadableException wrong, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        Refusal refusal = wrong.getCause() instanceof DatabindException unfit ? unfit(unfit)
                : wrong.getCause() instanceof JacksonException ? Refusal.invalid("", "the body is not JSON, or not all of it arrived")
                : Refusal.invalid("", "a body in JSON is wanted");
        return ResponseEntity.badRequest().body(refused(refusal).getBody());
    }

    private static Refusal unfit(DatabindException unfit) {
        String path = unfit.getPath().stream().map(part -> part.getPropertyName() == null ? Integer.toString(part.getIndex()) : part.getPropertyName())
                .collect(Collectors.joining("/"));
        String wanted = unfit instanceof MismatchedInputException mismatched && mismatched.getTargetType() != null ? kind(mismatched.getTargetType()) : "of another kind";
        return Refusal.invalid("/" + path, (path.isEmpty() ? "the body" : path.replace('/', '.')) + " should be " + wanted);
    }

    private static String kind(Class<?> type) {
        if (type.isEnum()) {
            return "one of " + Stream.of(type.getEnumConstants()).map(Object::toString).collect(Collectors.joining(", "));
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

    @Override
    protected ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException wrong, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        var field = wrong.getBindingResult().getFieldError();
        Refusal refusal = field == null ? Refusal.invalid("", wrong.getMessage())
                : Refusal.invalid("/" + field.getField(), field.getField() + " " + field.getDefaultMessage());
        return ResponseEntity.badRequest().body(refused(refusal).getBody());
    }
}

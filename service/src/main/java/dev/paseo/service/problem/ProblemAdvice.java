package dev.paseo.service.problem;

import java.net.URI;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

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

    @Override
    protected ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException wrong, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        var field = wrong.getBindingResult().getFieldError();
        Refusal refusal = field == null ? Refusal.invalid("", wrong.getMessage())
                : Refusal.invalid("/" + field.getField(), field.getField() + " " + field.getDefaultMessage());
        return ResponseEntity.badRequest().body(refused(refusal).getBody());
    }
}

package dev.paseo.service.web;

import jakarta.servlet.http.HttpServletRequest;
import java.util.stream.Stream;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import dev.paseo.service.problem.Refusal;
import java.net.URI;
import org.springframework.http.ProblemDetail;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** A browser that asks for a page that is not there gets the console, which says so; programs get a problem. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class UnknownAddresses {

    @ExceptionHandler(NoResourceFoundException.class)
    ResponseEntity<?> unknown(NoResourceFoundException unknown, HttpServletRequest request) {
        String accepts = String.valueOf(request.getHeader(HttpHeaders.ACCEPT));
        boolean page = accepts.contains(MediaType.TEXT_HTML_VALUE)
                && Stream.of("/api/", "/agent/", "/hooks/", "/actuator/", "/assets/")
                        .noneMatch(request.getRequestURI()::startsWith);
        if (!page) {
            return ResponseEntity.status(HttpStatus.NOT_FOUND).contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(nothing(unknown));
        }
        return ResponseEntity.status(HttpStatus.NOT_FOUND).cacheControl(CacheControl.noCache())
                .contentType(MediaType.TEXT_HTML)
                .body(new ClassPathResource("/console/index.html"));
    }

    private static ProblemDetail nothing(NoResourceFoundException unknown) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(HttpStatus.NOT_FOUND,
                "There is nothing at /" + unknown.getResourcePath());
        problem.setType(URI.create(Refusal.Kind.NOT_FOUND.type()));
        return problem;
    }
}

package dev.paseo.service.web;

import dev.paseo.service.problem.ProblemAdvice;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * What is refused, or fails, before anything of ours is asked is told in the form of all problems; that the database is
 * away while somebody's token is looked up, as it is told elsewhere. Asked for by itself, there is nothing here.
 */
@Hidden
@RestController
class Errors implements ErrorController {

    private final ProblemAdvice advice;

    Errors(ProblemAdvice advice) {
        this.advice = advice;
    }

    @RequestMapping("/error")
    ResponseEntity<ProblemDetail> error(HttpServletRequest request) {
        if (request.getAttribute(RequestDispatcher.ERROR_EXCEPTION) instanceof Exception failed
                && ProblemAdvice.isAway(failed)) {
            return advice.away(failed);
        }
        HttpStatus status = Optional.ofNullable(request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE))
                .filter(Integer.class::isInstance)
                .map(code -> HttpStatus.resolve((Integer) code)).orElse(HttpStatus.NOT_FOUND);
        return ResponseEntity.of(ProblemDetail.forStatus(status)).build();
    }
}

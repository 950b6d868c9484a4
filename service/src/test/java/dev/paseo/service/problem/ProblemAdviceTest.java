package dev.paseo.service.problem;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;

import java.io.IOException;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;

class ProblemAdviceTest {

    private final ProblemAdvice advice = new ProblemAdvice(mock(Faults.class));

    private static String said(int status, ResponseEntity<ProblemDetail> answer) {
        assertEquals(status, answer.getStatusCode().value());
        return String.valueOf(Objects.requireNonNull(answer.getBody()).getDetail());
    }

    @Test
    void whatTheDatabaseCannotKeepIsAFieldOfTheRequest() {
        assertEquals("A value is too long, or out of its range",
                said(400, advice.unfit(new DataIntegrityViolationException("Data too long for column 'x'"))));
    }

    @Test
    void aFullDiskIsNoFailureOfOurs() {
        assertEquals("The service's disk is full. Nothing was half done: try again when there is room.",
                said(507, advice.broken(new IllegalStateException(new IOException("No space left on device")))));
    }

    @Test
    void aFailureHasANumberAndSaysNothingOfTheInside() {
        String said = said(500, advice.broken(new IllegalStateException("secret of the inside")));
        assertTrue(said.matches("Something failed inside Paseo: error [0-9a-f]{8} in the service's log\\. Nothing was "
                + "half done: try again\\."), said);
    }
}

package dev.paseo.service.problem;

import static org.junit.jupiter.api.Assertions.assertEquals;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.boot.health.contributor.Status;

class FaultsTest {

    private final SimpleMeterRegistry meters = new SimpleMeterRegistry();
    private final AtomicInteger ended = new AtomicInteger();
    private final Faults faults = new Faults(meters, ended::incrementAndGet);

    /** Error → whether the process ends where others could go on, and where a thread of ours is gone. */
    static Stream<Arguments> errors() {
        return Stream.of(Arguments.of(new OutOfMemoryError("Java heap space"), true, true),
                Arguments.of(new NoClassDefFoundError("dev/paseo/Gone"), true, true),
                Arguments.of(new StackOverflowError(), false, true),
                Arguments.of(new AssertionError("never"), false, true));
    }

    @ParameterizedTest
    @MethodSource("errors")
    void anErrorIsCountedToldAndEndsWhatCannotBeTrusted(Error error, boolean endsInRequest, boolean endsInThread) {
        assertEquals(Status.UP, faults.health().getStatus());
        faults.met("a request", error);
        assertEquals(endsInRequest ? 1 : 0, ended.get());
        assertEquals(Status.DOWN, faults.health().getStatus());
        assertEquals("a request: " + error, faults.health().getDetails().get("error"));
        faults.uncaught("effects-1", error);
        assertEquals((endsInRequest ? 1 : 0) + (endsInThread ? 1 : 0), ended.get());
        assertEquals(2, meters.counter("paseo.faults").count());
    }
}

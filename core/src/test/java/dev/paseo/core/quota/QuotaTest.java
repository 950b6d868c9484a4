package dev.paseo.core.quota;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class QuotaTest {

    private static final Quota QUOTA = new Quota(2_048_000);

    @ParameterizedTest
    @CsvSource(nullValues = "-", value = {
            "0, 0, -",
            "0, 2048000, -",
            "2047999, 1, -",
            "0, 2048001, 'hut-planner has 0 bytes kept, of 2 MB that it may; 2 MB more are too many: an operator "
                    + "allows more in paseo.kept-per-component'",
            "1536000, 614400, 'hut-planner has 1.5 MB kept, of 2 MB that it may; 614.4 kB more are too many: an "
                    + "operator allows more in paseo.kept-per-component'",
            "2048000, 0, 'hut-planner has 2 MB kept, of 2 MB that it may: an operator allows more in "
                    + "paseo.kept-per-component'",
            "2560000, 1, 'hut-planner has 2.6 MB kept, of 2 MB that it may: an operator allows more in "
                    + "paseo.kept-per-component'"})
    void full(long taken, long more, String why) {
        assertEquals(Optional.ofNullable(why), QUOTA.full("hut-planner", taken, more));
    }

    @ParameterizedTest
    @CsvSource({"0, false", "1638399, false", "1638400, true", "3000000, true"})
    void peopleAreToldBefore(long taken, boolean told) {
        assertEquals(told, QUOTA.nearly("hut-planner", taken).isPresent());
    }

    /** Whatever the numbers: there is room exactly for what is left, and never for more. */
    @Test
    void thereIsRoomForWhatIsLeft() {
        Random random = new Random(18);
        for (int round = 0; round < 10_000; round++) {
            long taken = random.nextLong(3_000_000);
            long left = QUOTA.left(taken);
            assertEquals(left == 0, QUOTA.full("x", taken, left).isPresent(), () -> taken + " taken");
            assertEquals(true, QUOTA.full("x", taken, left + 1).isPresent());
            assertEquals(true, QUOTA.full("x", taken, Long.MAX_VALUE).isPresent());
        }
    }
}

package dev.paseo.service.signature;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StandardWebhooksTest {

    private static final String SECRET = "whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw";
    private static final String ID = "msg_p5jXN8AQM9LWM0D4loKWxJek";
    private static final long AT = 1_614_265_330;
    private static final byte[] BODY = "{\"test\": 2432232314}".getBytes(StandardCharsets.UTF_8);
    private static final String SIGNATURE = "v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=";

    /** The example of the standard's own text. */
    @Test
    void theStandardsExample() {
        assertEquals(SIGNATURE, StandardWebhooks.sign(SECRET, ID, AT, BODY));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "1614265330 | v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=                    | believed",
            "1614265330 | v1,AAAA v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE= v1a,x      | believed",
            "1614265330 | v1,h0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=                    | its signature "
                    + "does not match the hook's secret",
            "1614265330 | g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=                       | its signature "
                    + "does not match the hook's secret",
            "1614265330 | v1,not base64!                                                     | its signature "
                    + "does not match the hook's secret",
            "1614265331 | v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=                    | its signature "
                    + "does not match the hook's secret",
            "1614264000 | v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=                    | its time is more "
                    + "than 5 min from ours",
            "soon       | v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=                    | its time is more "
                    + "than 5 min from ours",
            "99999999999999999999 | v1,x                                                     | its time is more "
                    + "than 5 min from ours"})
    void whatIsBelieved(String timestamp, String signatures, String expected) {
        assertEquals(expected, StandardWebhooks
                .reasonAgainst(SECRET, ID, timestamp, signatures, BODY, Instant.ofEpochSecond(AT)).orElse("believed"));
    }
}

package dev.paseo.core.access;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AskedActTest {

    @ParameterizedTest
    @CsvSource({
            "PROMOTE, PROMOTE, true, promote daylight-api 1.4.2 into production",
            "ROLL_BACK, ROLL_BACK, false, roll back daylight-api in production",
            "HOLD, PROMOTE, false, hold daylight-api in production",
            "LIFT_HOLD, PROMOTE, false, lift the hold of daylight-api in production",
    })
    void eachSaysWhatItAsksAndWhoMay(AskedAct act, Action action, boolean ofVersion, String sentence) {
        assertEquals(action, act.action());
        assertEquals(ofVersion, act.ofVersion());
        assertEquals(sentence, act.sentence("daylight-api", Optional.of("1.4.2").filter(any -> ofVersion),
                "production"));
    }
}

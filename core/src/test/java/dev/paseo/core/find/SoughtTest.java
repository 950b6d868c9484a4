package dev.paseo.core.find;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SoughtTest {

    private static String told(Sought sought) {
        StringBuilder told = new StringBuilder();
        sought.name().ifPresent(word -> told.append(" name=").append(word));
        sought.component().ifPresent(word -> told.append(" component=").append(word));
        sought.version().ifPresent(word -> told.append(" version=").append(word));
        sought.run().ifPresent(number -> told.append(" run=").append(number));
        sought.deployment().ifPresent(number -> told.append(" deployment=").append(number));
        sought.digest().ifPresent(word -> told.append(" digest=").append(word));
        return told.toString().strip();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            daylight             | name=daylight version=daylight
            Daylight-API         | name=daylight-api version=Daylight-API
            daylight-api 1.4     | component=daylight-api version=1.4
            daylight-api  1.4-RC | component=daylight-api version=1.4-RC
            daylight-api#41      | component=daylight-api run=41
            daylight-api #41     | component=daylight-api run=41
            deployment 1042      | deployment=1042
            Deployment #1042     | deployment=1042
            1042                 | name=1042 version=1042 deployment=1042 digest=1042
            c0ffee12             | name=c0ffee12 version=c0ffee12 digest=c0ffee12
            C0FFEE12             | name=c0ffee12 version=C0FFEE12 digest=c0ffee12
            sha256:c0ffee12      | name=sha256:c0ffee12 version=sha256:c0ffee12 digest=c0ffee12
            abc                  | name=abc version=abc
            a b c                | name=a b c version=a b c
            'rides 100%'         | component=rides version=100%
            9999999999999999999  | name=9999999999999999999 version=9999999999999999999 digest=9999999999999999999
            """)
    void aTextIsReadInTheWaysInWhichThingsAreNamed(String text, String meant) {
        assertEquals(meant, told(Sought.of(text)));
    }

    @ParameterizedTest
    @CsvSource({"''", "'  '"})
    void nothingIsMeantByNothing(String text) {
        assertEquals("", told(Sought.of(text)));
        assertEquals("", told(Sought.of("x".repeat(Sought.LONGEST + 1))));
    }
}

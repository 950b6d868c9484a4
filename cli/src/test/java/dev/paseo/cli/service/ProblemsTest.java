package dev.paseo.cli.service;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.IOException;
import java.net.ConnectException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;

class ProblemsTest {

    private static Optional<String> words(String problem) {
        return Problems.words(JsonMapper.builder().build().readTree(problem));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "/label                      | should have 1 to 120 characters | label: should have 1 to 120 characters",
            "/environments/production/to-enter/count | should be 1 to 20   | environments.production.to-enter.count: "
                    + "should be 1 to 20",
            "/name                       | name should be text             | name should be text",
            "/hosts/hut~1north           | is not there                    | hosts.hut/north: is not there",
            "''                          | the body is not JSON            | the body is not JSON"})
    void aProblemNamesItsField(String pointer, String detail, String words) {
        assertEquals(Optional.of(words),
                words("{\"detail\": \"" + detail + "\", \"pointer\": \"" + pointer.replace("''", "") + "\"}"));
    }

    @Test
    void allThatIsWrongIsSaid() {
        assertEquals(Optional.of("name: is missing\ndays: should be 1 to 365"), words("""
                {"detail": "is missing", "pointer": "/name", "errors": [{"pointer": "/name", "detail": "is missing"},
                 {"pointer": "/days", "detail": "should be 1 to 365"}]}"""));
        assertEquals(Optional.empty(), words("{}"));
    }

    @Test
    void noClassOfJavaReachesAPerson() {
        assertEquals("nothing accepts connections there", Problems.words(new ConnectException("Connection refused")));
        assertEquals("there is no host of that name", Problems.words(new UnknownHostException("park")));
        assertEquals("it did not answer in time", Problems.words(new SocketTimeoutException("Read timed out")));
        assertEquals("the connection broke", Problems.words(new IOException("java.lang.Odd")));
    }
}

package dev.paseo.language.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.language.Reading;
import dev.paseo.language.environment.Placing.NotFree;
import dev.paseo.language.environment.Placing.Offer;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlacingTest {

    private static final String TEXT = """
            environments:
              test:
                components:
                  path-board:
                    url: http://127.0.0.1:7611
                    hosts: {test-1: {url: "http://127.0.0.1:7611", variables: {LOG: debug}}}
                    variables: {LEVEL: warn}
                    secrets: [BOARD_KEY]
              production:
                follows: test
                to-enter: {approvals: {from: approvers, count: 2}}
                components:
                  path-board: {hosts: {north-hut: {url: "https://north-hut"}, ridge-hut: {}}}
            """;
    private static final EnvironmentsFile FILE = file();

    private static EnvironmentsFile file() {
        Reading<EnvironmentsFile> reading = EnvironmentsFileReader.read(TEXT);
        assertEquals(List.of(), reading.problems());
        return reading.value().orElseThrow();
    }

    private final Placing placing = new Placing(FILE);

    @Test
    void hostsOfTheEnvironmentAndOfNoneAreOfferedWithAFreeAddress() {
        assertEquals(List.of(new Offer("meadow", "http://meadow:8080", List.of(), false),
                new Offer("test-1", "http://127.0.0.1:7612", List.of("path-board"), false)),
                placing.offers("hut-lantern", "test", List.of("meadow", "north-hut", "test-1")));
        assertEquals(List.of(new Offer("north-hut", "https://north-hut", List.of(), true),
                new Offer("ridge-hut", "http://ridge-hut:8080", List.of(), true)),
                placing.offers("path-board", "production", List.of("north-hut", "test-1")));
    }

    @Test
    void aPlaceIsGivenAndAllElseStays() {
        EnvironmentsFile with = placing.with("hut-lantern", "production", Map.of("north-hut", "http://north-hut:8081"));
        String text = EnvironmentsWriter.write(with);
        assertTrue(text.contains("hut-lantern") && text.contains("http://north-hut:8081"), text);
        assertEquals(FILE.environments().get(1).rules(), with.environments().get(1).rules());
        assertEquals(FILE.environments().getFirst(), with.environments().getFirst());
    }

    @Test
    void whatAHostThatStaysHasIsKept() {
        EnvironmentsFile.Place place = placing.with("path-board", "test", Map.of("test-1", "http://127.0.0.1:7699"))
                .environments().getFirst().components().get("path-board");
        assertEquals(Map.of("LOG", "debug"), place.hosts().get("test-1").variables());
        assertEquals(Map.of("LEVEL", "warn"), place.variables());
        assertEquals(List.of("BOARD_KEY"), place.secrets());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "tset | http://x:1 | There is no environment tset; did you mean test?",
            "test | http://127.0.0.1:7611/x | path-board in test answers at 127.0.0.1:7611 already; http://test-1:8080 is free",
            "test | https://north-hut:443 | path-board in production answers at north-hut:443 already; http://test-1:8080 is free",
            "test | ftp://x | An address should be http://NAME:PORT or https://NAME:PORT; got “ftp://x”",
            "test | x y | An address should be http://NAME:PORT or https://NAME:PORT; got “x y”"})
    void whatCannotBeHadIsTold(String environment, String url, String message) {
        NotFree refused = assertThrows(NotFree.class,
                () -> placing.with("hut-lantern", environment, Map.of("meadow", url)));
        assertEquals(message.replace("test-1", "meadow"), refused.getMessage());
    }

    @Test
    void noHostIsNoPlace() {
        assertEquals("hut-lantern needs at least one host in test",
                assertThrows(NotFree.class, () -> placing.with("hut-lantern", "test", Map.of())).getMessage());
    }
}

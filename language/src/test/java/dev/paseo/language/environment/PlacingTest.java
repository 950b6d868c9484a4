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
                placing.offers("hut-lantern", List.of("meadow", "north-hut", "test-1")).get("test"));
        assertEquals(List.of(new Offer("north-hut", "https://north-hut", List.of(), true),
                new Offer("ridge-hut", "http://ridge-hut:8080", List.of(), true)),
                placing.offers("path-board", List.of("north-hut", "test-1")).get("production"));
    }

    /** Two hosts may be one machine. */
    @Test
    void noAddressIsOfferedTwice() {
        String text = "environments: {a: {components: {x: {hosts: {a-1: {url: \"http://box:9000\"}, a-2: {url: "
                + "\"http://box:9001\"}}}}}}\n";
        assertEquals(List.of("http://box:9002", "http://box:9003"),
                new Placing(EnvironmentsFileReader.read(text).value().orElseThrow()).offers("y", List.of()).get("a")
                        .stream().map(Offer::url).toList());
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
            "test | http://127.0.0.1:7611/x | The address 127.0.0.1:7611 is that of path-board in test; "
                    + "http://meadow:8080 is free",
            "test | https://north-hut:443 | The address north-hut:443 is that of path-board in production; "
                    + "http://meadow:8080 is free",
            "test | ftp://x | An address should be http://NAME:PORT or https://NAME:PORT; got “ftp://x”",
            "test | x y | An address should be http://NAME:PORT or https://NAME:PORT; got “x y”"})
    void whatCannotBeHadIsTold(String environment, String url, String message) {
        NotFree refused = assertThrows(NotFree.class,
                () -> placing.with("hut-lantern", environment, Map.of("meadow", url)));
        assertEquals(message, refused.getMessage());
    }

    @Test
    void aHostWithoutAnAgentIsReachedAsTheOthersReachIt() {
        EnvironmentsFile file = EnvironmentsFileReader.read("""
                environments:
                  test:
                    components:
                      path-board:
                        hosts:
                          depot:
                            ssh: {agent: gate, address: depot, user: board, key: DEPOT_KEY,
                                  host-key: ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIKoh, folder: /srv}
                """).value().orElseThrow();
        assertEquals(file.environments().getFirst().components().get("path-board").hosts().get("depot").ssh(),
                new Placing(file).with("hut-lantern", "test", Map.of("depot", "")).environments().getFirst()
                        .components()
                        .get("hut-lantern").hosts().get("depot").ssh());
    }

    @Test
    void noHostIsNoPlace() {
        assertEquals("At least one host of test is needed for hut-lantern",
                assertThrows(NotFree.class, () -> placing.with("hut-lantern", "test", Map.of())).getMessage());
    }
}

package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CyclesTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "a>b b>c     | a | none",
            "a>a         | a | a a",
            "a>b b>a     | a | a b a",
            "a>b b>a     | b | b a b",
            "a>b b>c c>a | b | b c a b",
            "a>b b>c c>b | a | none",
            "a>b b>d d>a a>c c>e e>f f>a | a | a b d a"})
    void theShortestWayBack(String edges, String component, String expected) {
        Map<String, Set<String>> downstream = new HashMap<>();
        Arrays.stream(edges.strip().split(" ")).map(edge -> edge.split(">"))
                .forEach(edge -> downstream.computeIfAbsent(edge[0], name -> new HashSet<>()).add(edge[1]));
        assertEquals(expected, Cycles.through(component, downstream).map(way -> String.join(" ", way)).orElse("none"));
    }
}

package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.trigger.Trigger.Novelty;
import dev.paseo.core.trigger.UpstreamChoice.Candidate;
import dev.paseo.core.trigger.UpstreamChoice.Choice;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A diamond: map-tiles and path-board are both built from sun-model, and park-kiosk from the two. */
class UpstreamChoiceTest {

    private static Candidate tiles(long id, String model) {
        return new Candidate(id, "map-tiles", "1." + id, Map.of("sun-model", Set.of(model)));
    }

    private static Candidate board(long id, String model) {
        return new Candidate(id, "path-board", "0." + id, Map.of("sun-model", Set.of(model)));
    }

    private static String choose(Novelty together, Candidate happened, List<Candidate> tiles, List<Candidate> boards,
            Map<String, Long> used) {
        Map<String, List<Candidate>> sealed = new LinkedHashMap<>();
        sealed.put("map-tiles", tiles);
        sealed.put("path-board", boards);
        return switch (UpstreamChoice.choose(together, happened, sealed, used)) {
            case Choice.Waits(String reason) -> reason;
            case Choice.Starts(List<Candidate> versions) -> String.join(" ",
                    versions.stream().map(Candidate::number).toList());
        };
    }

    @ParameterizedTest
    @CsvSource({"ANY, 1.1", "ALL, path-board has no version yet", "CONSISTENT, path-board has no version yet"})
    void theFirstVersionOfOne(Novelty together, String expected) {
        assertEquals(expected, choose(together, tiles(1, "2.8.1"), List.of(tiles(1, "2.8.1")), List.of(), Map.of()));
    }

    @ParameterizedTest
    @CsvSource({"ANY, 0.4", "ALL, 1.3 0.4", "CONSISTENT, 1.3 0.4"})
    void bothNew(Novelty together, String expected) {
        assertEquals(expected, choose(together, board(4, "2.8.2"), List.of(tiles(3, "2.8.2"), tiles(1, "2.8.1")),
                List.of(board(4, "2.8.2"), board(2, "2.8.1")), Map.of("map-tiles", 1L, "path-board", 2L)));
    }

    @Test
    void oneIsBehindItsAncestor() {
        List<Candidate> tiles = List.of(tiles(3, "2.8.2"), tiles(1, "2.8.1"));
        List<Candidate> boards = List.of(board(2, "2.8.1"));
        assertEquals("waits for a new version of path-board: 0.2 was used already",
                choose(Novelty.CONSISTENT, tiles(3, "2.8.2"), tiles, boards,
                        Map.of("map-tiles", 1L, "path-board", 2L)));
        assertEquals("1.1 0.2", choose(Novelty.CONSISTENT, tiles(3, "2.8.2"), tiles, boards, Map.of()));
        assertEquals(
                "waits for versions that agree: map-tiles 1.3 was built from sun-model 2.8.2, but path-board 0.2 "
                        + "was built from sun-model 2.8.1",
                choose(Novelty.CONSISTENT, tiles(3, "2.8.2"), tiles, boards, Map.of("map-tiles", 1L)));
    }

    @Test
    void nothingStartsTwice() {
        Map<String, Long> used = Map.of("map-tiles", 3L, "path-board", 4L);
        assertEquals("0.4 was used already",
                choose(Novelty.CONSISTENT, board(4, "2.8.2"), List.of(tiles(3, "2.8.2")), List.of(board(4, "2.8.2")),
                        used)
                        .replace("path-board ", ""));
    }

    @Test
    void anAncestorItselfMustAgreeToo() {
        Candidate model = new Candidate(5, "sun-model", "2.8.3", Map.of());
        assertEquals(
                "waits for versions that agree: sun-model is at 2.8.3, but map-tiles 1.3 was built from "
                        + "sun-model 2.8.2",
                switch (UpstreamChoice.choose(Novelty.CONSISTENT, model,
                        new LinkedHashMap<>(Map.of("sun-model", List.of(model))) {
                            {
                                put("map-tiles", List.of(tiles(3, "2.8.2")));
                            }
                        }, Map.of())) {
                    case Choice.Waits(String reason) -> reason;
                    case Choice.Starts starts -> "starts";
                });
    }

    /**
     * Versions of both are sealed in any order, from any version of the ancestor: what starts is always consistent, no
     * version starts two runs, and once both are there for the newest ancestor, a run of exactly these was started.
     */
    @Property(tries = 500)
    void anyOrderOfADiamond(@ForAll long seed) {
        Random random = new Random(seed);
        int changes = 1 + random.nextInt(5);
        List<int[]> order = new ArrayList<>();
        int[] next = {1, 1};
        while (next[0] <= changes || next[1] <= changes) {
            int side = next[0] > changes ? 1 : next[1] > changes ? 0 : random.nextInt(2);
            order.add(new int[]{side, next[side]++});
        }
        Map<String, Long> used = new HashMap<>();
        Set<Long> startedWith = new HashSet<>();
        List<Candidate> tiles = new ArrayList<>();
        List<Candidate> boards = new ArrayList<>();
        List<Candidate> last = List.of();
        for (int at = 0; at < order.size(); at++) {
            String model = "2.8." + order.get(at)[1];
            Candidate sealed = order.get(at)[0] == 0 ? tiles(at + 1, model) : board(at + 1, model);
            (order.get(at)[0] == 0 ? tiles : boards).addFirst(sealed);
            Map<String, List<Candidate>> all = Map.of("map-tiles", tiles, "path-board", boards);
            if (UpstreamChoice.choose(Novelty.CONSISTENT, sealed, all,
                    used) instanceof Choice.Starts(List<Candidate> versions)) {
                assertEquals(versions.get(0).builtFrom(), versions.get(1).builtFrom());
                versions.forEach(version -> assertTrue(startedWith.add(version.id()), "used twice: " + version));
                versions.forEach(version -> used.put(version.component(), version.id()));
                last = versions;
            }
        }
        assertEquals(Optional.of(Map.of("sun-model", Set.of("2.8." + changes))),
                last.stream().findFirst().map(Candidate::builtFrom));
    }
}

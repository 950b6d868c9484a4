package dev.paseo.core.secret;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ValueReachTest {

    private static final List<ValueReach> SOME = Stream
            .of("*/*/*", "a/*/*", "b/*/*", "*/test/*", "*/production/*", "a/test/*", "a/production/*", "b/test/*",
                    "a/production/ridge", "a/production/valley")
            .map(ValueReachTest::reach).toList();

    private static ValueReach reach(String text) {
        String[] parts = text.split("/");
        return new ValueReach(part(parts[0]), part(parts[1]), part(parts[2]));
    }

    private static Optional<String> part(String text) {
        return text.equals("*") ? Optional.empty() : Optional.of(text);
    }

    @ParameterizedTest
    @CsvSource({
            "a/*/*,              a/production/*,            true",
            "*/production/*,     a/production/*,            true",
            "*/*/*,              a/production/*,            true",
            "a/production/*,     a/production/ridge,        true",
            "a/production/*,     a/production/*,            false",
            "a/test/*,           a/production/*,            false",
            "b/production/*,     a/production/*,            false",
            "a/production/ridge, a/production/*,            false",
            "a/production/*,     a/*/*,                     false",
            "a/*/*,              a/production/* */*/*,      false",
            "*/*/*,              '',                        false",
            "*/production/*,     a/*/* a/production/*,      true",
    })
    void whatHoldsFurtherThanWhatIsThereWidens(String wanted, String present, boolean widens) {
        List<ValueReach> there = Stream.of(present.split(" ")).filter(text -> !text.isEmpty())
                .map(ValueReachTest::reach).toList();
        assertEquals(widens, reach(wanted).widens(there));
    }

    @Test
    void coveringIsAnOrderAndWhatIsCoveredNeverWidens() {
        for (ValueReach one : SOME) {
            assertTrue(one.covers(one));
            for (ValueReach other : SOME) {
                assertFalse(one.covers(other) && other.covers(one) && !one.equals(other), () -> one + " and " + other);
                assertEquals(one.covers(other) && !one.equals(other), one.widens(List.of(other)),
                        () -> one + " beside " + other);
                for (ValueReach third : SOME) {
                    assertTrue(!one.covers(other) || !other.covers(third) || one.covers(third));
                }
            }
        }
    }

    @Test
    void itsWordsNameWhatIsAbsentToo() {
        assertEquals("for every component in production", reach("*/production/*").words());
        assertEquals("for a in production on ridge", reach("a/production/ridge").words());
        assertEquals("for every component in every environment", reach("*/*/*").words());
    }
}

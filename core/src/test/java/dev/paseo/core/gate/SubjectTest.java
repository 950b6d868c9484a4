package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SubjectTest {

    private static final Subject SEEN = new Subject("digest", 1, 2, 3, 4);

    @ParameterizedTest
    @CsvSource({"other, 1, 2, 3, 4", "digest, 9, 2, 3, 4", "digest, 1, 9, 3, 4", "digest, 1, 2, 9, 4",
            "digest, 1, 2, 3, 9"})
    void whateverIsOtherwiseIsAnotherSubject(String version, long settings, long secrets, long rules, long live) {
        assertNotEquals(SEEN.digest(), new Subject(version, settings, secrets, rules, live).digest());
    }

    @Test
    void whatHasChangedIsSaid() {
        assertEquals(List.of("the variables", "what is live"), new Subject("digest", 9, 2, 3, 9).changedSince(SEEN));
        assertEquals(List.of("the secrets", "the rules"), new Subject("digest", 1, 9, 9, 4).changedSince(SEEN));
        assertEquals(List.of(), SEEN.changedSince(SEEN));
    }

    @Test
    void aSetIsAnotherSubjectWhereAnyMemberIsAnother() {
        assertEquals("a", Subject.ofSet("a", List.of()), "what stands alone stands for itself");
        String set = Subject.ofSet("a", List.of("b", "c"));
        for (String other : List.of(Subject.ofSet("x", List.of("b", "c")), Subject.ofSet("a", List.of("x", "c")),
                Subject.ofSet("a", List.of("b", "x")), Subject.ofSet("a", List.of("c", "b")),
                Subject.ofSet("a", List.of("b")))) {
            assertNotEquals(set, other);
        }
    }
}

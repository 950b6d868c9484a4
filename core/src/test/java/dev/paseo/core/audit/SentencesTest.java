package dev.paseo.core.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SentencesTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "none", emptyValue = "", value = {
            "ana | held | daylight-api | production | '' | ana held daylight-api in production",
            "paseo | promotion requested | board 1.0 | test | '' | the service asked for board 1.0 in test",
            "ana | secret set | API_KEY | '' | '' | ana set the secret API_KEY",
            "ana | secret set | API_KEY | test | board | ana set the secret API_KEY for board in test",
            "ana | something new | board | test | '' | 'ana: something new, board, in test'",
            "ana | something new | board | '' | '' | 'ana: something new, board'"})
    void anEntryIsASentence(String who, String what, String subject, String where, String component, String sentence) {
        assertEquals(sentence, Sentences.of(who, what, subject, where, Map.of("component", component)));
    }

    @Test
    void whatStandsInAnEntryIsNoTemplate() {
        assertEquals("{it} $1 held \\2 [x] in {where}",
                Sentences.of("{it} $1", "held", "\\2 [x]", "{where}", Map.of()));
    }

    @Test
    void aNameThatIsMissingLeavesAGapAndNoHole() {
        assertEquals("… decides", Sentences.of("", "deputy ended", "ana", "", Map.of())
                .replaceAll(".*that (…) decides.*", "$1 decides"));
        Sentences.actions().forEach(what -> assertFalse(Sentences.of("ana", what, "it", "test", Map.of())
                .matches(".*[{}\\[\\]].*"), what));
    }
}

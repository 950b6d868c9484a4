package dev.paseo.service.hook;

import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.hook.HookMapping.Scheme;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class HookMappingTest {

    /** The digest is the one of RFC 4231, test case 2. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "none", value = {
            "HMAC_SHA256 | ''      | 5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843        | "
                    + "believed",
            "HMAC_SHA256 | digest: | digest:5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843 | "
                    + "believed",
            "HMAC_SHA256 | digest: | 5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843        | it "
                    + "has no header X-Digest that begins with digest:",
            "HMAC_SHA256 | ''      | 5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3844        | its "
                    + "X-Digest does not match the hook's secret",
            "HMAC_SHA256 | ''      | none                                                                    | it "
                    + "has no header X-Digest",
            "SHARED_WORD | ''      | Jefe                                                                    | "
                    + "believed",
            "SHARED_WORD | ''      | jefe                                                                    | its "
                    + "X-Digest does not match the hook's secret"})
    void whatIsBelieved(Scheme scheme, String prefix, String value, String expected) {
        HookMapping mapping = new HookMapping("X-Digest", scheme, Optional.of(prefix).filter(text -> !text.isEmpty()),
                Optional.empty(), Optional.empty());
        assertEquals(expected,
                mapping.reasonAgainst("Jefe", value, "what do ya want for nothing?".getBytes(StandardCharsets.UTF_8))
                        .orElse("believed"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "none", value = {
            "X-Digest   | none       | /who/account | right",
            "X Digest   | none       | /who/account | A header's name",
            "X-Digest   | X-Message: | /who/account | A header's name",
            "X-Digest   | X-Message  | who.account | should be a JSON Pointer",
            "X-Digest   | X-Message  | /            | should be a JSON Pointer"})
    void whatAMappingMaySay(String header, String delivery, String pusher, String expected) {
        HookMapping mapping = new HookMapping(header, Scheme.SHARED_WORD, Optional.empty(),
                Optional.ofNullable(delivery), Optional.of(pusher));
        if (expected.equals("right")) {
            assertDoesNotThrow(mapping::check);
        } else {
            String said = assertThrows(Refusal.class, mapping::check).getMessage();
            assertEquals(expected, said.substring(0, expected.length()));
        }
    }
}

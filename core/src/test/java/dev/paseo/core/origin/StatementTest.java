package dev.paseo.core.origin;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.signature.SigningPair;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class StatementTest {

    private static final String APP = "a".repeat(64);

    private final SigningPair ours = SigningPair.fresh();
    private final Statement statement = new Statement(Statement.TYPE, Statement.PROVENANCE,
            List.of(new Statement.Subject("app", APP)));
    private final byte[] payload = "{\"words\":\"what is stated\"}".getBytes(StandardCharsets.UTF_8);

    private SignedEnvelope signed(String type, byte[] bytes) {
        return new SignedEnvelope(type, bytes,
                List.of(new SignedEnvelope.Signed("", ours.sign(SignedEnvelope.signed(type, bytes)))));
    }

    @Test
    void whatIsSignedIsAsDsseHasIt() {
        assertEquals("DSSEv1 29 http://example.com/HelloWorld 11 hello world",
                new String(SignedEnvelope.signed("http://example.com/HelloWorld",
                        "hello world".getBytes(StandardCharsets.UTF_8)), StandardCharsets.UTF_8));
        assertEquals("DSSEv1 2 é 0 ", new String(SignedEnvelope.signed("é", new byte[0]), StandardCharsets.UTF_8));
    }

    @Test
    void aStatementOfThisFileBySomebodyTrustedIsBelieved() {
        assertEquals(Optional.empty(),
                statement.reasonAgainst(signed(SignedEnvelope.IN_TOTO, payload), ours.ring(), APP));
    }

    @Test
    void noOtherIs() {
        SignedEnvelope good = signed(SignedEnvelope.IN_TOTO, payload);
        assertEquals(Optional.of("the statement is about another file: app " + APP),
                statement.reasonAgainst(good, ours.ring(), "b".repeat(64)));
        assertEquals(Optional.of("the statement is about another file: none"),
                new Statement(Statement.TYPE, Statement.LIVE, List.of()).reasonAgainst(good, ours.ring(), APP));
        assertEquals(Optional.of("the statement is not signed by this key: it was changed, or is another service's"),
                statement.reasonAgainst(good, SigningPair.fresh().ring(), APP));
        assertEquals(Optional.of("the envelope holds text/plain, and should hold " + SignedEnvelope.IN_TOTO),
                statement.reasonAgainst(signed("text/plain", payload), ours.ring(), APP));
        assertEquals(Optional.of("the statement is of the type x, and should be of " + Statement.TYPE),
                new Statement("x", Statement.LIVE, statement.subjects()).reasonAgainst(good, ours.ring(), APP));
        assertFalse(new SignedEnvelope(good.payloadType(), good.payload(), List.of()).good(ours.ring()),
                "what nobody signed");
    }

    @Test
    void eachChangedByteIsFoundInThePayloadAndInTheSignature() {
        SignedEnvelope good = signed(SignedEnvelope.IN_TOTO, payload);
        assertTrue(good.good(ours.ring()));
        for (int i = 0; i < payload.length; i++) {
            byte[] changed = payload.clone();
            changed[i] ^= 1;
            assertFalse(new SignedEnvelope(good.payloadType(), changed, good.signatures()).good(ours.ring()));
        }
        String signature = good.signatures().getFirst().signature();
        for (int i = 0; i < signature.length(); i++) {
            char other = signature.charAt(i) == 'A' ? 'B' : 'A';
            String changed = signature.substring(0, i) + other + signature.substring(i + 1);
            assertFalse(new SignedEnvelope(good.payloadType(), payload, List.of(new SignedEnvelope.Signed("", changed)))
                    .good(ours.ring()), changed);
        }
    }
}

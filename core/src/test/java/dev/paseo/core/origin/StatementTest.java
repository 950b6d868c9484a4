package dev.paseo.core.origin;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.Signature;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class StatementTest {

    private static final String APP = "a".repeat(64);

    private final KeyPair ours = pair();
    private final Statement statement = new Statement(Statement.TYPE, Statement.PROVENANCE,
            List.of(new Statement.Subject("app", APP)));
    private final byte[] payload = "{\"words\":\"what is stated\"}".getBytes(StandardCharsets.UTF_8);

    private static KeyPair pair() {
        try {
            return KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private SignedEnvelope signed(String type, byte[] bytes) {
        try {
            Signature signature = Signature.getInstance("Ed25519");
            signature.initSign(ours.getPrivate());
            signature.update(SignedEnvelope.signed(type, bytes));
            return new SignedEnvelope(type, bytes, List.of(new SignedEnvelope.Signed("",
                    Base64.getEncoder().encodeToString(signature.sign()))));
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
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
        assertEquals(Optional.empty(), statement.doubt(signed(SignedEnvelope.IN_TOTO, payload), ours.getPublic(), APP));
    }

    @Test
    void noOtherIs() {
        SignedEnvelope good = signed(SignedEnvelope.IN_TOTO, payload);
        assertEquals(Optional.of("the statement is about another file: app " + APP),
                statement.doubt(good, ours.getPublic(), "b".repeat(64)));
        assertEquals(Optional.of("the statement is about another file: none"),
                new Statement(Statement.TYPE, Statement.LIVE, List.of()).doubt(good, ours.getPublic(), APP));
        assertEquals(Optional.of("the statement is not signed by this key: it was changed, or is another service's"),
                statement.doubt(good, pair().getPublic(), APP));
        assertEquals(Optional.of("the envelope holds text/plain, and should hold " + SignedEnvelope.IN_TOTO),
                statement.doubt(signed("text/plain", payload), ours.getPublic(), APP));
        assertEquals(Optional.of("the statement is of the type x, and should be of " + Statement.TYPE),
                new Statement("x", Statement.LIVE, statement.subjects()).doubt(good, ours.getPublic(), APP));
        assertFalse(new SignedEnvelope(good.payloadType(), good.payload(), List.of()).good(ours.getPublic()),
                "what nobody signed");
    }

    @Test
    void eachChangedByteIsFoundInThePayloadAndInTheSignature() {
        SignedEnvelope good = signed(SignedEnvelope.IN_TOTO, payload);
        assertTrue(good.good(ours.getPublic()));
        for (int i = 0; i < payload.length; i++) {
            byte[] changed = payload.clone();
            changed[i] ^= 1;
            assertFalse(new SignedEnvelope(good.payloadType(), changed, good.signatures()).good(ours.getPublic()));
        }
        String signature = good.signatures().getFirst().signature();
        for (int i = 0; i < signature.length(); i++) {
            char other = signature.charAt(i) == 'A' ? 'B' : 'A';
            String changed = signature.substring(0, i) + other + signature.substring(i + 1);
            assertFalse(new SignedEnvelope(good.payloadType(), payload, List.of(new SignedEnvelope.Signed("", changed)))
                    .good(ours.getPublic()), changed);
        }
    }
}

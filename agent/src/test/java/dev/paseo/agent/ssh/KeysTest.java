package dev.paseo.agent.ssh;

import static org.junit.jupiter.api.Assertions.assertTrue;

import org.apache.sshd.common.signature.BuiltinSignatures;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** An agent by itself, with nothing beside it but its own libraries. */
class KeysTest {

    @ParameterizedTest
    @EnumSource(value = BuiltinSignatures.class, names = {"ed25519", "nistp256", "rsaSHA512"})
    void itSpeaksTheKeysThatServersHave(BuiltinSignatures signature) {
        assertTrue(signature.isSupported(), signature.getName());
    }
}

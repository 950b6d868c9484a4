package dev.paseo.core.text;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Movement;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class WordTest {

    @ParameterizedTest
    @EnumSource(Movement.What.class)
    void aWordIsReadAsWhatItIsOf(Movement.What what) {
        assertEquals(Optional.of(what), Word.read(Movement.What.class, Word.of(what)));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "LIVE", "alive", "live "})
    void whatIsNoWordOfItIsNone(String word) {
        assertEquals(Optional.empty(), Word.read(DeploymentStatus.class, word));
    }
}

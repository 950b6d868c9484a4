package dev.paseo.service.secret;

import dev.paseo.service.problem.Refused;
import java.util.List;
import org.junit.jupiter.api.Test;

class SecretsTest {

    @Test
    void aSecretIsLongEnoughToBeMasked() {
        for (String wrong : List.of("", "12345", "x".repeat(16_001))) {
            Refused.field("/value", () -> Secrets.check(wrong));
        }
        Secrets.check("123456");
    }
}

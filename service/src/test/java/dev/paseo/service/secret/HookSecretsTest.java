package dev.paseo.service.secret;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.matches;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;

import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import org.junit.jupiter.api.Test;

class HookSecretsTest {

    private final Secrets secrets = mock(Secrets.class);
    private final HookSecrets hooks = new HookSecrets(secrets);

    @Test
    void aSecretIsMadeAsTheStandardWritesIt() {
        hooks.make(7);
        verify(secrets).set(anyString(), matches("whsec_[A-Za-z0-9+/]{32}"), any(), any());
    }

    @Test
    void aComponentWithoutOneIsTold() {
        assertEquals("sun-board has no hook", Refused.by(Kind.NOT_FOUND, () -> hooks.of(7, "sun-board")));
        assertEquals("sun-board has no mapping for hooks",
                Refused.by(Kind.NOT_FOUND, () -> hooks.mapped(7, "sun-board")));
    }
}

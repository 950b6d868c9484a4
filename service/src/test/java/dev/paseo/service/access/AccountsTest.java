package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class AccountsTest {

    @Test
    void whoIsNotThereIsNamedWithWhoIsNear() {
        AccountMapper mapper = mock(AccountMapper.class);
        when(mapper.named("ana")).thenReturn(Optional.empty());
        when(mapper.allNames()).thenReturn(List.of("anna", "ben"));
        assertEquals("There is no account ana; did you mean anna?",
                Refused.by(Kind.NOT_FOUND, () -> new Accounts(mapper).idOf("ana")));
    }
}

package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class SigningInTest {

    private static final AccountMapper.AccountRow ANNA = new AccountMapper.AccountRow(7, "anna", "hash", null);

    private final AtNoon noon = new AtNoon();
    private final AccountMapper mapper = mock(AccountMapper.class);
    private final Passwords passwords = mock(Passwords.class);
    private final FailedTries tries = new FailedTries();
    private final AccountStates states = mock(AccountStates.class);
    private final Accounts accounts = mock(Accounts.class);
    private final SigningIn signingIn = new SigningIn(mapper, accounts, passwords, tries, noon.changes);
    private final SettingPasswords setting = new SettingPasswords(mapper, passwords, signingIn,
            new Administration(mapper, accounts, noon.changes, states, mock(AccountStates.OfGroups.class)));

    @BeforeEach
    void anna() {
        when(mapper.named("anna")).thenReturn(Optional.of(ANNA));
        when(passwords.matches("right", "hash")).thenReturn(true);
        when(states.text(anyString())).thenReturn("as it is");
    }

    @Test
    void aWrongNameAndAWrongPasswordAreAnsweredAlike() {
        String wrong = Refused.by(Kind.SIGNED_OUT, () -> signingIn.check("anna", "wrong", "127.0.0.1"));
        assertEquals(wrong, Refused.by(Kind.SIGNED_OUT, () -> signingIn.check("nobody", "wrong", "127.0.0.1")));
        verify(passwords).matches("wrong", "");
    }

    @Test
    void aDisabledAccountSignsInAsLittleAsOneThatIsNotThere() {
        when(mapper.named("anna")).thenReturn(Optional.of(new AccountMapper.AccountRow(7, "anna", "hash", Rows.NOON)));
        Refused.by(Kind.SIGNED_OUT, () -> signingIn.check("anna", "right", "127.0.0.1"));
        verify(passwords).matches("right", "");
    }

    @Test
    void whoGuessesWaitsAndTheirPasswordIsNotLookedAt() {
        for (int guess = 0; guess < 60; guess++) {
            tries.failed("anna", "127.0.0.1", Rows.NOON);
        }
        assertEquals("Too many failed tries to sign in as anna, or from this address; try again in 1 min 1 s",
                Refused.by(Kind.TOO_MANY, () -> signingIn.check("anna", "right", "127.0.0.1")));
        verifyNoInteractions(passwords);
    }

    @Test
    void aCodeThatIsUnknownCountsAsATry() {
        for (int guess = 0; guess < 5; guess++) {
            Refused.by(Kind.SIGNED_OUT, () -> setting.byCode("paseo-code-x", "long enough", "10.0.0.7"));
        }
        assertEquals("Too many failed tries from this address; try again in 2 s",
                Refused.by(Kind.TOO_MANY, () -> setting.byCode("paseo-code-x", "long enough", "10.0.0.7")));
    }

    @Test
    void ofTwoWhoUseACodeAtOnceOneDid() {
        when(mapper.ofCode(anyString(), any())).thenReturn(Optional.of(ANNA));
        when(mapper.dropCodes(7)).thenReturn(1, 0);
        assertEquals("anna", setting.byCode("paseo-code-x", "long enough", "127.0.0.1"));
        assertEquals("This code has just been used; ask an administrator for a new one",
                Refused.by(Kind.SIGNED_OUT, () -> setting.byCode("paseo-code-x", "another one", "127.0.0.1")));
        verify(mapper).endSessions(7);
    }
}

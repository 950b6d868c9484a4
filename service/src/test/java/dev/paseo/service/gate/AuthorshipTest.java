package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.access.Accounts;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.source.Mirror;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Who is behind a version: git is asked once, and who cannot be told is said. */
class AuthorshipTest {

    private final RealDatabase database = RealDatabase.get();
    private final Accounts accounts = mock(Accounts.class);
    private final Components components = mock(Components.class);
    private final Mirror mirror = mock(Mirror.class);
    private final Authorship authorship = new Authorship(database.mapper(GateDecisionMapper.class), components,
            accounts, database.json());
    private final long component = database.rows().component();
    private final String proposed = database.rows().digest();

    @BeforeEach
    void annaHasAnAccount() {
        when(components.mirror(any())).thenReturn(mirror);
        when(accounts.accountsOf(any())).thenAnswer(call -> {
            Map<String, String> known = new HashMap<>(Map.of("anna@huts.example", "anna", "ben", "ben"));
            known.keySet().retainAll(call.<Collection<String>>getArgument(0));
            return known;
        });
    }

    private Optional<Authorship.Behind> behind() {
        return authorship.behind(component, Optional.of("live"), proposed);
    }

    private void learn() {
        authorship.learn(component, Optional.of("live"), proposed);
    }

    private void pushed(String by, boolean told) {
        database.insert("""
                insert into trigger_event (component_id, kind, branch, commit_id, sentence, actor, told, at)
                values (?, 'push', 'main', ?, '', ?, ?, ?)""", component, proposed, by, told, Rows.NOON);
    }

    @Test
    void nobodyIsKnownUntilGitWasAsked() {
        pushed("ben", true);
        assertEquals(Optional.empty(), behind());
        when(mirror.authors(any(), anyString())).thenReturn(Set.of());
        learn();
        assertEquals(Optional.of(new Authorship.Behind(Set.of("ben"), Set.of())), behind());
    }

    @Test
    void whoPushedWithoutSayingWhoAndAStrangersAddressAreOfNobody() {
        when(mirror.authors(any(), anyString())).thenReturn(Set.of("anna@huts.example", "away@huts.example", ""));
        learn();
        pushed("", false);
        assertEquals(Optional.of(new Authorship.Behind(Set.of("anna"),
                Set.of("away@huts.example", "the pusher of " + proposed + " to main"))), behind());
    }

    @Test
    void gitIsAskedOnce() {
        when(mirror.authors(any(), anyString())).thenReturn(Set.of("anna@huts.example"));
        learn();
        learn();
        verify(mirror, times(1)).authors(Optional.of("live"), proposed);
    }

    @Test
    void whereGitCannotTellNothingIsKeptAndItIsAskedAgain() {
        when(mirror.authors(any(), anyString())).thenThrow(new IllegalStateException("no such commit"))
                .thenReturn(Set.of("anna@huts.example"));
        assertThrows(IllegalStateException.class, this::learn);
        assertEquals(Optional.empty(), behind());
        learn();
        assertEquals(Optional.of(new Authorship.Behind(Set.of("anna"), Set.of())), behind());
    }

    @Test
    void anUploadsAuthorsAreThoseThatItStates() {
        long version = database.rows().version(component, database.rows().line(component), 1);
        database.change("insert into version_author (version_id, address) values (?, 'anna@huts.example'), (?, 'x@y')",
                version, version);
        assertEquals(new Authorship.Behind(Set.of("anna"), Set.of("x@y")), authorship.stated(version));
    }
}

package dev.paseo.service.component;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Registration.NewComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.source.Mirrors;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is not registered, and why. */
class RegistrationTest {

    private static final String REPOSITORY = "https://git.park.test/board.git";

    private final ComponentMapper mapper = mock(ComponentMapper.class);
    private final Components components = mock(Components.class);
    private final Mirrors mirrors = mock(Mirrors.class);
    private final Registration registration = new Registration(mapper, components, mirrors, mock(FirstAccess.class),
            new AtNoon().changes);

    @BeforeEach
    void namesAreFree() {
        when(components.free(anyString())).thenReturn(true);
    }

    private static NewComponent wanted(String name, Optional<String> repository, Optional<String> text,
            List<String> trusted, List<String> secrets) {
        return new NewComponent(name, repository, text, Optional.empty(), Optional.empty(), Optional.empty(), trusted,
                List.of(), secrets, Optional.empty(), Optional.empty(), Optional.empty());
    }

    private String field(String pointer, NewComponent wanted) {
        return Refused.field(pointer, () -> registration.register(wanted, "anna"));
    }

    @Test
    void aNameIsOneAndFree() {
        for (String wrong : List.of("", "Sun Board", "-board", "x".repeat(64))) {
            field("/name", wanted(wrong, Optional.of(REPOSITORY), Optional.empty(), List.of(), List.of()));
        }
        when(components.free("sun-board")).thenReturn(false);
        when(components.freeName("sun-board")).thenReturn("sun-board-2");
        assertEquals("There is a component named sun-board already; sun-board-2 is free",
                Refused.by(Kind.CONFLICT, () -> registration.register(
                        wanted("sun-board", Optional.of(REPOSITORY), Optional.empty(), List.of(), List.of()), "anna")));
        verify(mapper, never()).add(any(), any(), any(), any(), any());
    }

    @Test
    void itHasARepositoryOrAText() {
        String either = "A component has a repository, or else the text of its pipeline file: one of them";
        assertEquals(either,
                field("/repository", wanted("sun-board", Optional.empty(), Optional.empty(), List.of(), List.of())));
        assertEquals(either, field("/repository",
                wanted("sun-board", Optional.of(REPOSITORY), Optional.of("paseo: 1"), List.of(), List.of())));
    }

    @Test
    void patternsAndSecretsAreNamedAsTheyAre() {
        for (String wrong : List.of("", "x".repeat(201))) {
            field("/trusted", wanted("sun-board", Optional.of(REPOSITORY), Optional.empty(), List.of(wrong),
                    List.of()));
        }
        for (String wrong : List.of("board_key", "PASEO_KEY", "1KEY")) {
            assertTrue(field("/secrets", wanted("sun-board", Optional.of(REPOSITORY), Optional.empty(), List.of(),
                    List.of("BOARD_KEY", wrong))).endsWith("got “" + wrong + "”"));
        }
    }

    @Test
    void whereTheRepositoryDoesNotLetUsInNothingIsRegistered() {
        doThrow(Refusal.conflict("git.park.test is not allowed")).when(mirrors).allow(REPOSITORY);
        Refused.by(Kind.CONFLICT, () -> registration.register(
                wanted("sun-board", Optional.of(REPOSITORY), Optional.empty(), List.of(), List.of()), "anna"));
        verify(mapper, never()).add(any(), any(), any(), any(), any());
    }

    @Test
    void secretsAreGivenByWhoMayGiveThem() {
        assertTrue(Refused.by(Kind.NOT_ALLOWED, () -> Registration.requireGrants(
                new Person(1, "anna", Set.of(), List.of()),
                wanted("sun-board", Optional.of(REPOSITORY), Optional.empty(), List.of(), List.of("BOARD_KEY"))))
                .contains("give secrets to sun-board"));
    }

    @Test
    void whatWasNotOpenedIsNotClosed() {
        RegisteredComponent board = new RegisteredComponent(7, "sun-board", Optional.empty(), "paseo.yaml", "main", "",
                Optional.empty());
        RegisteredComponent lamp = new RegisteredComponent(8, "lamp", Optional.empty(), "paseo.yaml", "main", "",
                Optional.empty());
        assertEquals("lamp is not opened to sun-board",
                Refused.by(Kind.NOT_FOUND, () -> registration.closed(board, lamp, "anna")));
    }
}

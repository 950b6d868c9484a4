package dev.paseo.service.component;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.Mockito.doThrow;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.core.access.Person;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceCredentials;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class ComponentChangesTest {

    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "daylight-api",
            Optional.of("ssh://git.park.test/api.git"), "paseo.yaml", "main", "", Optional.empty());

    private final AtNoon noon = new AtNoon();
    private final Components components = mock(Components.class);
    private final ComponentChanges.Naming naming = mock(ComponentChanges.Naming.class);
    private final Agreements.Askers askers = mock(Agreements.Askers.class);
    private final Agreements agreements = mock(Agreements.class);
    private final ComponentMapper mapper = mock(ComponentMapper.class);
    private final SourceMoves sources = new SourceMoves(mapper, components, mock(Mirrors.class),
            mock(SourceCredentials.class));
    private final ComponentChecks checks = new ComponentChecks(components, List.of(naming), agreements, askers,
            RealDatabase.get().json());
    private final ComponentChanges changes = new ComponentChanges(components, mock(Registration.class), sources,
            checks, new ChangedComponents(mapper, sources, checks, mock(Loosenings.class), noon.changes));
    private final Person anna = new Person(1, "anna", Set.of(), List.of());

    @BeforeEach
    void component() {
        when(components.rules(7)).thenReturn(new BranchRules(List.of(), List.of(new BranchPattern("main"))));
    }

    private void change(Optional<String> name, Optional<String> repository, Optional<String> file,
            Optional<List<String>> trusted) {
        changes.change(COMPONENT, new ComponentChanges.ComponentChange(name, repository, Optional.empty(), file,
                Optional.empty(), trusted, Optional.empty()), anna);
    }

    private void named(String name) {
        change(Optional.of(name), Optional.empty(), Optional.empty(), Optional.empty());
    }

    @Test
    void aNameIsFreeAndNothingLosesTheOldOne() {
        Refused.field("/name", () -> named("Daylight API"));
        when(components.freeName("sun-board")).thenReturn("sun-board-2");
        assertEquals("There is, or was, a component named sun-board; sun-board-2 is free",
                Refused.by(Kind.CONFLICT, () -> named("sun-board")));
        when(components.free("sun-api")).thenReturn(true);
        when(naming.naming("daylight-api")).thenReturn(List.of("the rules of production"));
        assertTrue(
                Refused.by(Kind.CONFLICT, () -> named("sun-api")).contains("it is named in the rules of production"));
    }

    @Test
    void aFileIsAPathInTheRepository() {
        for (String wrong : List.of("", "/etc/passwd", "../paseo.yaml", "x".repeat(201))) {
            Refused.field("/file", () -> change(Optional.empty(), Optional.empty(), Optional.of(wrong),
                    Optional.empty()));
        }
    }

    @Test
    void aRepositoryIsOfOneComponent() {
        String wanted = "ssh://git.park.test/board.git";
        when(components.ofRepository(wanted))
                .thenReturn(List.of(new RegisteredComponent(8, "sun-board", Optional.of(wanted),
                        "paseo.yaml", "main", "", Optional.empty())));
        assertEquals(wanted + " is already the repository of sun-board", Refused.by(Kind.CONFLICT,
                () -> change(Optional.empty(), Optional.of(wanted), Optional.empty(), Optional.empty())));
    }

    @Test
    void thatMoreBranchesAreTrustedIsChangedByItself() {
        when(askers.ofComponent("daylight-api")).thenReturn(Map.of("production", List.of("release-leads")));
        assertTrue(Refused.by(Kind.CONFLICT, () -> change(Optional.empty(), Optional.empty(), Optional.of("ci.yaml"),
                Optional.of(List.of("main", "release/*")))).contains("Change the trusted branches by themselves"));
        doThrow(Refusal.waits("waits")).when(agreements).ask(any(), any());
        Refused.by(Kind.WAITS, () -> change(Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.of(List.of("main", "release/*"))));
        verify(mapper, never()).addRule(anyLong(), anyString(), any(Boolean.class));
    }
}

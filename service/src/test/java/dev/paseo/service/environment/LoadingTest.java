package dev.paseo.service.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Rules;
import dev.paseo.language.environment.EnvironmentsFileReader;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class LoadingTest {

    private static final String TEXT = "environments: {production: {components: {}}}\n";

    private final AtNoon noon = new AtNoon();
    private final EnvironmentMapper mapper = mock(EnvironmentMapper.class);
    private final EnvironmentChecks checks = mock(EnvironmentChecks.class);
    private final StoredRules stored = mock(StoredRules.class);
    private final RulesLoosened loosened = new RulesLoosened(mapper, stored, mock(Loosenings.class), noon.changes);
    private final Loading loading = new Loading(checks,
            new LoadingAsks(mapper, checks, mock(Exporting.class), loosened, mock(Agreements.class),
                    RealDatabase.get().json()),
            mock(LoadedRows.class), loosened, noon.changes);

    @Test
    void whatLoosensByNowIsNotLoadedUnseen() {
        when(checks.check(TEXT)).thenReturn(
                new EnvironmentChecks.Checked(EnvironmentsFileReader.read(TEXT, List.of()).value(), List.of(),
                        List.of()));
        when(checks.loosens(any())).thenReturn(List.of()).thenReturn(List.of(mock(EnvironmentChecks.Change.class,
                call -> call.getMethod().getName().equals("environment") ? "production" : "less is asked")));
        EnvironmentMapper.EnvironmentRow row = mock(EnvironmentMapper.EnvironmentRow.class);
        when(row.rules()).thenReturn("{}");
        when(mapper.named("production")).thenReturn(Optional.of(row));
        Rules rules = mock(Rules.class);
        when(rules.toLoosen()).thenReturn(Optional.of(List.of("approvers")));
        when(stored.read(anyString())).thenReturn(rules);
        assertEquals("Somebody changed the rules meanwhile: look at the difference, and load the file again",
                Refused.by(Kind.CONFLICT, () -> loading.load(TEXT,
                        new Loading.Meant(Optional.empty(), true, Optional.empty()),
                        new Person(1, "anna", Set.of(), List.of()))));
        verify(noon.audit, never()).record(any());
    }
}

package dev.paseo.service.notice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class OwnFollowingTest {

    private static final Person ANNA = new Person(1, "anna", Set.of(), List.of());

    private final FollowingMapper mapper = mock(FollowingMapper.class);
    private final OwnFollowing following = new OwnFollowing(mapper, mock(Components.class), mock(Environments.class));

    @Test
    void whatCannotBeFollowedIsNamedWithWhatCan() {
        assertEquals("should be one of component, environment, deployment; got “host”",
                Refused.field("/what", () -> following.follow(ANNA, "host", "north-hut")));
        verify(mapper, never()).follow(anyLong(), any(), anyLong());
    }

    @Test
    void aDeploymentIsFollowedByItsNumber() {
        when(mapper.deployment(0)).thenReturn(Optional.empty());
        for (String wrong : List.of("latest", "-1", "1".repeat(19))) {
            assertEquals("There is no deployment " + wrong,
                    Refused.by(Kind.NOT_FOUND, () -> following.leave(ANNA, "deployment", wrong)));
        }
        when(mapper.deployment(11)).thenReturn(Optional.of(11L));
        following.follow(ANNA, "deployment", "11");
        verify(mapper).follow(1, "deployment", 11);
    }
}

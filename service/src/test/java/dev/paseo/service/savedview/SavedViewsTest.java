package dev.paseo.service.savedview;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class SavedViewsTest {

    private final RealDatabase database = RealDatabase.get();
    private final SavedViewMapper mapper = database.mapper(SavedViewMapper.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final SavedViews views = new SavedViews(mapper, clock);
    private final Person own = person();
    private final Person other = person();

    @BeforeEach
    void time() {
        when(clock.now()).thenReturn(Rows.NOON);
    }

    private Person person(Grant... grants) {
        long id = database.rows().account();
        return new Person(id, database.name("account", id), Set.of(), List.of(grants));
    }

    private long kept(String name, boolean shared) {
        views.keep(own, name, "/runs?status=failed", shared);
        return views.seenBy(own).stream().filter(row -> row.name().equals(name)).findFirst().orElseThrow().id();
    }

    private static String refused(Runnable act) {
        return String.valueOf(assertThrows(Refusal.class, act::run).getMessage());
    }

    @Test
    void onesOwnIsDroppedByOneselfAlone() {
        long id = kept(" Failed ".strip(), false);
        assertEquals("You have no view " + id, refused(() -> views.drop(other, id)));
        views.drop(own, id);
        assertEquals("You have no view " + id, refused(() -> views.drop(own, id)));
    }

    @Test
    void aSharedOneIsDroppedByAnAdministratorToo() {
        long id = kept("For all", true);
        assertEquals("Only " + own.name() + " and an administrator may drop this view",
                refused(() -> views.drop(other, id)));
        views.drop(person(new Grant(Role.ADMINISTRATOR, Optional.empty(), Optional.empty())), id);
    }

    @Test
    void oneHasSoManyAtMost() {
        for (int at = 0; at < 100; at++) {
            views.keep(own, "View " + at, "/runs", false);
        }
        assertEquals("You have 100 views, which is the most; drop one of them first",
                refused(() -> views.keep(own, "One more", "/runs", false)));
        assertEquals(100, mapper.count(own.id()));
    }
}

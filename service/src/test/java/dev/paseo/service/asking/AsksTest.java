package dev.paseo.service.asking;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.AskedAct;
import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.service.change.Changes;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class AsksTest {

    private final RealDatabase database = RealDatabase.get();
    private final Changes changes = mock(Changes.class);
    private final WhoIsAsked who = mock(WhoIsAsked.class);
    private final Asks asks = new Asks(database.mapper(AskMapper.class), mock(Environments.class),
            mock(Versions.class), changes, who);
    private final Person developer = person(Role.DEVELOPER);

    @BeforeEach
    void outside() {
        when(changes.now()).thenReturn(Rows.NOON);
        when(changes.in(any())).thenAnswer(call -> ((Supplier<?>) call.getArgument(0)).get());
        doAnswer(call -> {
            ((Runnable) call.getArgument(0)).run();
            return null;
        }).when(changes).run(any());
        when(who.of(any(), anyString(), anyString())).thenReturn(Set.of("release-engineer"));
    }

    private Person person(Role role) {
        long id = database.rows().account();
        return new Person(id, database.name("account", id), Set.of(),
                List.of(new Grant(role, Optional.empty(), Optional.empty())));
    }

    private Environments.Place place() {
        Rows.Place row = database.rows().place();
        return new Environments.Place(row.id(), row.environment(), database.name("environment", row.environment()),
                "UTC", 1,
                row.component(), database.name("component", row.component()), Optional.empty(), 1, Optional.empty(),
                Optional.empty(), Optional.empty(), Optional.empty());
    }

    private Asks.AskedView hold(Environments.Place place) {
        return asks.ask(developer, AskedAct.HOLD, place, Optional.empty(), "why");
    }

    private static String refused(Runnable act) {
        return String.valueOf(assertThrows(Refusal.class, act::run).getMessage());
    }

    @Test
    void oneAsksSoMuchAtMostAndTheSameOnce() {
        Environments.Place first = place();
        Asks.AskedView one = hold(first);
        for (int at = 1; at < 20; at++) {
            hold(place());
        }
        assertEquals("You ask 20 things already, which is the most: drop one of them first",
                refused(() -> hold(place())));
        assertEquals(one.id(), hold(first).id());
        verify(who, times(20)).asked(any());
    }

    @Test
    void whoMayIsAskedAndNobodyElse() {
        Environments.Place place = place();
        Asks.AskedView ask = hold(place);
        assertEquals(List.of(ask.id()), asks.waitingFor(person(Role.RELEASE_ENGINEER)).stream()
                .map(Asks.AskedView::id).filter(id -> id == ask.id()).toList());
        assertEquals(asks.waitingFor(person(Role.RELEASE_ENGINEER)).size(),
                asks.countFor(person(Role.RELEASE_ENGINEER)));
        assertEquals(List.of(), asks.waitingFor(person(Role.TESTER)));
        assertEquals(0, asks.countFor(person(Role.TESTER)));
        Person stranger = new Person(1, "stranger", Set.of(), List.of());
        assertEquals("There is no ask " + ask.id(), refused(() -> asks.decline(stranger, ask.id(), "no")));
    }

    @Test
    void whatCannotBeDoneIsNotAsked() {
        Environments.Place place = place();
        String there = place.component() + " in " + place.environment();
        assertEquals("You may hold " + there + " yourself", refused(() -> asks.ask(person(Role.RELEASE_ENGINEER),
                AskedAct.HOLD, place, Optional.empty(), "why")));
        assertEquals("Nobody is asked to roll back " + there + ": nothing is live there", refused(
                () -> asks.ask(developer, AskedAct.ROLL_BACK, place, Optional.empty(), "why")));
        when(who.of(any(), anyString(), anyString())).thenReturn(Set.of());
        assertEquals("Nobody is asked to hold " + there + ": nobody may; an administrator gives that role",
                refused(() -> hold(place)));
    }
}

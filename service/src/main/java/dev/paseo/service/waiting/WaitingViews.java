package dev.paseo.service.waiting;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.asking.Asks;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.loosening.Agreements;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What needs somebody. */
@Component
class WaitingViews {

    private static final int MOST = 200;

    /** An emergency that is to be looked at. */
    record ReviewView(long deployment, String component, String environment, String version,
            Optional<String> requestedBy, String reason, boolean emergency, Instant at, Instant due) {}

    /** A version that does not go on to an environment until something is mended; then it goes on by itself. */
    record StayingWalkView(String component, String version, String environment, String reason, Instant since) {}

    /**
     * What needs the reader, the most urgent first; at most 200 of {@code count}.
     *
     * @param stays  walks that stay; for those who set secrets or change environments
     * @param loosenings those that the reader may agree to
     * @param asks   what others, who may not do it themselves, ask of the reader
     * @param nobody what waits although nobody may decide it; for those who can add members to groups
     */
    record WaitingView(Instant now, int count, List<WaitingGates.Waiting> gates, List<ReviewView> reviews,
            List<MissingGrants.GrantView> grants, List<StayingWalkView> stays, List<WaitingGates.Waiting> nobody,
            List<Agreements.LooseningView> loosenings, List<Asks.AskedView> asks) {}

    record CountView(int count) {}

    private final WaitingMapper mapper;
    private final WaitingGates waits;
    private final MissingGrants missing;
    private final Agreements agreements;
    private final ServiceClock clock;

    WaitingViews(WaitingMapper mapper, WaitingGates waits, MissingGrants missing, Agreements agreements,
            ServiceClock clock) {
        this.mapper = mapper;
        this.waits = waits;
        this.missing = missing;
        this.agreements = agreements;
        this.clock = clock;
    }

    WaitingView waiting(Person person, List<Asks.AskedView> asks) {
        List<ReviewView> reviews = reviews(person);
        List<MissingGrants.GrantView> grants = grants(person);
        List<WaitingGates.Waiting> nobody = nobody(person);
        List<StayingWalkView> stays = stays(person);
        List<Agreements.LooseningView> loosenings = agreements.waitingFor(person.name());
        return new WaitingView(clock.now(),
                waits.count(person.id()) + asks.size() + sum(reviews, grants, stays, nobody, loosenings),
                waits.forPerson(person.id(), MOST), reviews, grants,
                stays, nobody, loosenings, asks);
    }

    private List<StayingWalkView> stays(Person person) {
        return mapper.stays().stream().filter(row -> person.may(Action.SET_SECRET, Optional.of(row.component()),
                Optional.of(row.environment()))
                || person.may(Action.EDIT_ENVIRONMENT, Optional.of(row.component()), Optional.of(row.environment())))
                .map(row -> new StayingWalkView(row.component(), row.version(), row.environment(), row.reason(),
                        row.since()))
                .toList();
    }

    /** How much needs the reader: as many as the whole answer has. */
    CountView count(Person person, int asks) {
        return new CountView(waits.count(person.id()) + asks + sum(reviews(person), grants(person), stays(person),
                nobody(person), agreements.waitingFor(person.name())));
    }

    private static int sum(List<?>... lists) {
        return Arrays.stream(lists).mapToInt(List::size).sum();
    }

    private List<MissingGrants.GrantView> grants(Person person) {
        return person.may(Action.SET_SECRET, Optional.empty(), Optional.empty()) ? missing.all() : List.of();
    }

    private List<WaitingGates.Waiting> nobody(Person person) {
        return person.may(Action.MANAGE_ACCOUNTS, Optional.empty(), Optional.empty()) ? waits.forNobody(MOST)
                : List.of();
    }

    private List<ReviewView> reviews(Person person) {
        return mapper.reviews(person.id()).stream()
                .filter(row -> person.may(Action.DECIDE, Optional.of(row.component()), Optional.of(row.environment())))
                .map(row -> new ReviewView(row.deployment(), row.component(), row.environment(), row.version(),
                        Optional.ofNullable(row.requestedBy()), row.reason(), row.emergency(), row.at(), row.due()))
                .toList();
    }
}

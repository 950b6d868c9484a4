package dev.paseo.service.set;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.request.Requests;
import dev.paseo.service.request.Wanted;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongUnaryOperator;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Requests of a set's members, each as it was approved with the others. */
@Component
class SetRequests {

    private static final TypeReference<Map<String, Subject>> SUBJECTS = new TypeReference<>() {};

    private final SetMapper mapper;
    private final Environments environments;
    private final PlaceGates gates;
    private final Requests requests;
    private final Accounts accounts;
    private final Json json;

    SetRequests(SetMapper mapper, Environments environments, PlaceGates gates, Requests requests, Accounts accounts,
            Json json) {
        this.mapper = mapper;
        this.environments = environments;
        this.gates = gates;
        this.requests = requests;
        this.accounts = accounts;
        this.json = json;
    }

    /** Asks for the first member; {@code promotion} is made within the transaction of its request. */
    long first(SetMapper.SetRow set, List<Versions.Version> members, String environment, Person by,
            LongUnaryOperator promotion) {
        members.forEach(member -> {
            environments.place(member.component(), environment);
            if (member.blocked()) {
                throw Refusal.conflict(member.component() + " " + member.number() + " of the set is blocked");
            }
        });
        return request(set, members, environment, members.getFirst(), by, promotion);
    }

    /** Asks for another member; refused where it would not be deployed as it was approved. */
    void next(SetMapper.SetRow set, List<Versions.Version> members, SetMapper.PromotionRow promotion,
            Versions.Version member) {
        refuseChanged(promotion, member);
        request(set, members, promotion.environment(), member, accounts.named(promotion.by()),
                deployment -> promotion.id());
    }

    /** Outside any transaction, since git is asked for authors; one that is refused leaves nothing behind. */
    private long request(SetMapper.SetRow set, List<Versions.Version> members, String environment,
            Versions.Version member, Person by, LongUnaryOperator promotion) {
        members.forEach(each -> gates.learn(environments.place(each.component(), environment), each));
        Environments.Place place = environments.place(member.component(), environment);
        return requests.request(new Wanted(place, member, Kind.PROMOTION, Optional.of(by),
                new Cause.Asked(by.name(), Optional.of("with the set " + set.name())), Optional.empty(),
                Optional.of(promotion)));
    }

    /**
     * People approved all members as they were when the set's gate opened: one that would be another now does not go.
     */
    private void refuseChanged(SetMapper.PromotionRow promotion, Versions.Version member) {
        Map<String, Subject> approved = mapper.subjects(promotion.id()).map(text -> json.read(text, SUBJECTS))
                .orElse(Map.of());
        Subject now = gates.subject(environments.place(member.component(), promotion.environment()), member);
        Optional.ofNullable(approved.get(member.component())).filter(then -> !then.digest().equals(now.digest()))
                .ifPresent(then -> {
                    throw Refusal.conflict(
                            String.join(" and ", now.changedSince(then)) + " changed since the set was approved");
                });
    }
}

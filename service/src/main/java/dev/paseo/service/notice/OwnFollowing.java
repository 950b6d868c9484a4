package dev.paseo.service.notice;

import dev.paseo.core.access.Person;
import dev.paseo.core.text.Word;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What somebody wants to be told of beside what is their own. */
@Component
public class OwnFollowing {

    /** What can be followed. */
    public enum Followed {
        COMPONENT, ENVIRONMENT, DEPLOYMENT
    }

    /**
     * Something that is followed.
     *
     * @param name a component's or an environment's name, or a deployment's number
     */
    record FollowedView(Followed what, String name) {}

    private final FollowingMapper mapper;
    private final Components components;
    private final Environments environments;

    OwnFollowing(FollowingMapper mapper, Components components, Environments environments) {
        this.mapper = mapper;
        this.components = components;
        this.environments = environments;
    }

    List<FollowedView> of(Person person) {
        return mapper.of(person.id()).stream()
                .map(row -> new FollowedView(Word.read(Followed.class, row.what()).orElseThrow(), row.name())).toList();
    }

    void follow(Person person, String what, String name) {
        Followed kind = kind(what);
        mapper.follow(person.id(), Word.of(kind), id(kind, name));
    }

    void leave(Person person, String what, String name) {
        Followed kind = kind(what);
        mapper.leave(person.id(), Word.of(kind), id(kind, name));
    }

    private static Followed kind(String what) {
        return Word.read(Followed.class, what).orElseThrow(() -> Refusal.invalid("/what", "should be one of "
                + Arrays.stream(Followed.values()).map(Word::of).collect(Collectors.joining(", ")) + "; got “" + what
                + "”"));
    }

    private long id(Followed kind, String name) {
        return switch (kind) {
            case COMPONENT -> components.named(name).id();
            case ENVIRONMENT -> environments.named(name).id();
            case DEPLOYMENT -> mapper.deployment(name.matches("[0-9]{1,18}") ? Long.parseLong(name) : 0)
                    .orElseThrow(() -> Refusal.notFound("There is no deployment " + name));
        };
    }
}

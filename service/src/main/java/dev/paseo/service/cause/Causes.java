package dev.paseo.service.cause;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.cause.Consequences;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** Keeps causes and follows them back. */
@Component
public class Causes {

    /** One link: what it was, as a sentence, and when. */
    public record Link(long id, String kind, String sentence, Cause cause, Instant at) {}

    private final CauseMapper mapper;
    private final Json json;
    private final ServiceClock clock;

    Causes(CauseMapper mapper, Json json, ServiceClock clock) {
        this.mapper = mapper;
        this.json = json;
        this.clock = clock;
    }

    public long add(Cause cause, OptionalLong because) {
        CauseMapper.NewCause row = new CauseMapper.NewCause(because.isPresent() ? because.getAsLong() : null,
                cause.getClass().getSimpleName().toLowerCase(Locale.ROOT), json.write(cause), clock.now());
        mapper.add(row);
        return row.id;
    }

    /** From this cause back to the push or the person with whom it began. */
    public List<Link> chain(long id) {
        return mapper.chain(id).stream().map(row -> {
            Cause cause = json.read(row.body(), type(row.kind()));
            return new Link(row.id(), row.kind(), cause.sentence(), cause, row.at());
        }).toList();
    }

    /** One cause by itself. */
    public Cause cause(long id) {
        return chain(id).getFirst().cause();
    }

    /** These causes, as they are kept. */
    public List<Consequences.RecordedCause> kept(List<Long> ids) {
        return ids.isEmpty() ? List.of()
                : mapper.all(ids).stream()
                        .map(row -> new Consequences.RecordedCause(row.id(), Optional.ofNullable(row.parentId()),
                                json.read(row.body(), type(row.kind()))))
                        .toList();
    }

    private static Class<? extends Cause> type(String kind) {
        return switch (kind) {
            case "push" -> Cause.Push.class;
            case "tag" -> Cause.Tag.class;
            case "clock" -> Cause.Clock.class;
            case "arrival" -> Cause.Arrival.class;
            case "live" -> Cause.Live.class;
            case "asked" -> Cause.Asked.class;
            case "run" -> Cause.Run.class;
            case "walk" -> Cause.Walk.class;
            default -> throw new IllegalStateException("a cause of the unknown kind " + kind + " is kept");
        };
    }
}

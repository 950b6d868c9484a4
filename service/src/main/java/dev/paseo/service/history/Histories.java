package dev.paseo.service.history;

import dev.paseo.core.history.Happening;
import dev.paseo.core.history.Mark;
import dev.paseo.core.history.Page;
import dev.paseo.core.history.Source;
import dev.paseo.core.history.What;
import dev.paseo.service.database.Json;
import dev.paseo.service.history.HistoryMapper.Asked;
import dev.paseo.service.history.HistoryMapper.Behind;
import dev.paseo.service.history.HistoryMapper.HappenedRow;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Puts together what happened, from where it is kept. */
@Component
class Histories {

    private static final Mark NEWEST = new Mark(Instant.parse("9999-01-01T00:00:00Z"), Source.STRETCH, 0);

    /** What of the trail is read. */
    private record Told(String who, String subject, String where, String because) {}

    /** The names of what is asked, for the trail. */
    record Names(Optional<String> component, Optional<String> environment, Optional<String> host) {}

    /** What the trail calls what happens to hosts. */
    static final Map<String, What> TROUBLES = Map.of("unhealthy", What.UNHEALTHY, "drift", What.DRIFTED);

    private final HistoryMapper mapper;
    private final Json json;

    Histories(HistoryMapper mapper, Json json) {
        this.mapper = mapper;
        this.json = json;
    }

    Page page(Asked asked, Names names, Optional<Mark> after) {
        Mark mark = after.orElse(NEWEST);
        int limit = asked.limit();
        Asked more = new Asked(asked.component(), asked.environment(), asked.host(), asked.account(), asked.since(),
                asked.until(), limit + 1);
        return Page.of(List.of(
                rows(mark, Source.STRETCH, behind -> mapper.stretches(more, behind),
                        row -> row.again() ? What.LIVE_AGAIN : What.WENT_LIVE),
                rows(mark, Source.DEPLOYMENT, behind -> mapper.ended(more, behind), row -> What.ENDED),
                rows(mark, Source.HOLD_LIFTED, behind -> mapper.holds("lifted_at", more, behind), row -> What.LET_GO),
                rows(mark, Source.HOLD, behind -> mapper.holds("at", more, behind), row -> What.HELD),
                rows(mark, Source.CLOSURE_LIFTED, behind -> mapper.closures("lifted_at", more, behind),
                        row -> What.OPENED),
                rows(mark, Source.CLOSURE, behind -> mapper.closures("at", more, behind), row -> What.CLOSED),
                troubles(mark, "unhealthy", more, names), troubles(mark, "drift", more, names)), after, limit);
    }

    private static List<Happening> rows(Mark mark, Source source, Function<Behind, List<HappenedRow>> query,
            Function<HappenedRow, What> what) {
        Mark.Bound bound = mark.behind(source);
        return query.apply(new Behind(bound.at(), bound.id())).stream()
                .map(row -> happening(source, what.apply(row), row)).toList();
    }

    static Happening happening(Source source, What what, HappenedRow row) {
        return new Happening(new Mark(row.at(), source, row.id()), what, Optional.ofNullable(row.component()),
                row.environment(), Optional.ofNullable(row.version()), Optional.ofNullable(row.deployment()),
                Optional.ofNullable(row.status()), Optional.ofNullable(row.by()), Optional.empty(),
                Optional.ofNullable(row.reason()), row.emergency());
    }

    /** To the second, as the trail is indexed; no person does any of it. */
    private List<Happening> troubles(Mark mark, String word, Asked asked, Names names) {
        if (asked.account() != null) {
            return List.of();
        }
        Mark.Bound bound = mark.behind(Source.TRAIL);
        Instant second = bound.at().truncatedTo(ChronoUnit.SECONDS);
        return mapper.troubles(new HistoryMapper.TroubleAsked(word, names.component().orElse(null),
                names.environment().orElse(null), names.host().orElse(null), text(asked.since()),
                text(asked.until()), asked.limit()), second(second),
                second.equals(bound.at()) ? bound.id() : Long.MAX_VALUE).stream().map(this::trouble).toList();
    }

    private static @Nullable String text(@Nullable Instant moment) {
        return moment == null ? null : second(moment);
    }

    static String second(Instant moment) {
        return moment.toString().substring(0, 19);
    }

    Happening trouble(HistoryMapper.TroubleRow row) {
        What what = Objects.requireNonNull(TROUBLES.get(row.what()));
        Told told = json.read(row.body(), Told.class);
        return new Happening(new Mark(Instant.parse(row.second() + "Z"), Source.TRAIL, row.id()), what,
                Optional.of(told.subject()), told.where(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), Optional.of(told.who()), Optional.of(told.because()), false);
    }
}

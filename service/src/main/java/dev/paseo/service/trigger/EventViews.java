package dev.paseo.service.trigger;

import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.trigger.EventMapper.ConsideredRow;
import dev.paseo.service.trigger.EventMapper.EventRow;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What happened to components and elsewhere that concerns them, and what each trigger made of it. */
@Component
class EventViews {

    private static final int MOST = 50;

    /** A trigger that was considered: the run that it started, or why it did not. */
    record ConsideredView(String component, int position, String trigger, Optional<Long> run,
            Optional<String> reason) {}

    /**
     * Something that may start runs.
     *
     * @param kind   {@code push}, {@code tag}, {@code clock}, {@code run}, {@code live} or {@code arrival}
     * @param reason why no trigger could be considered
     */
    record TriggerEventView(long id, String component, String kind, Optional<String> branch, Optional<String> commit,
            String sentence, String by,
            Instant at, Optional<String> reason, List<ConsideredView> considered) {}

    private final Components components;
    private final EventMapper mapper;

    EventViews(Components components, EventMapper mapper) {
        this.components = components;
        this.mapper = mapper;
    }

    /**
     * The newest, at most 50.
     *
     * @param before only those with a lower id: the cursor of the next page
     * @param commit only what happened to a commit, given whole or by its first 4 or more digits
     */
    List<TriggerEventView> newest(String name, Optional<Long> before, Optional<String> commit) {
        RegisteredComponent component = components.named(name);
        if (commit.isPresent() && !commit.get().matches("[0-9a-f]{4,64}")) {
            throw Refusal.invalid("/commit",
                    "should be a commit's id, or its first 4 or more digits; got “" + commit.get() + "”");
        }
        return views(commit.map(id -> mapper.ofCommit(component.id(), id, MOST))
                .orElseGet(() -> mapper.newest(component.id(), before.orElse(Long.MAX_VALUE), MOST)));
    }

    /**
     * @param next goes on after these, as {@code before}, or as {@code after} where that was asked; absent where there
     *             are no more
     */
    record TriggerEventList(List<TriggerEventView> events, Optional<Long> next) {}

    TriggerEventList all(EventMapper.EventsAsked asked) {
        List<TriggerEventView> found = views(mapper.asked(asked));
        return new TriggerEventList(found,
                Optional.of(found).filter(all -> all.size() == asked.limit()).map(all -> all.getLast().id()));
    }

    long idOf(String component) {
        return components.named(component).id();
    }

    TriggerEventView one(String name, long id) {
        return views(mapper.byId(id).filter(row -> row.component().equals(name)).map(List::of)
                .orElseThrow(() -> Refusal.notFound(name + " has no event " + id))).getFirst();
    }

    private List<TriggerEventView> views(List<EventRow> rows) {
        if (rows.isEmpty()) {
            return List.of();
        }
        Map<Long, List<ConsideredRow>> considered = mapper.considered(rows.stream().map(EventRow::id).toList()).stream()
                .collect(Collectors.groupingBy(ConsideredRow::eventId));
        return rows.stream().map(row -> new TriggerEventView(row.id(), row.component(), row.kind(),
                Optional.ofNullable(row.branch()),
                Optional.ofNullable(row.commitId()), row.sentence(), row.actor(), row.at(),
                Optional.ofNullable(row.reason()),
                considered.getOrDefault(row.id(), List.of()).stream()
                        .map(each -> new ConsideredView(each.component(), each.position(), each.words(),
                                Optional.ofNullable(each.runNumber()), Optional.ofNullable(each.reason())))
                        .toList()))
                .toList();
    }
}

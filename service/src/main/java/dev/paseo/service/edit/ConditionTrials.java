package dev.paseo.service.edit;

import dev.paseo.language.condition.Condition;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.database.Json;
import dev.paseo.service.evidence.Evidence;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Holds conditions against the newest runs of a component. */
@Component
class ConditionTrials {

    private static final int RUNS = 20;
    private static final TypeReference<Map<String, String>> ANSWERS = new TypeReference<>() {};

    /** What a condition was for a run; {@code holds} is absent where a fact that it asks for was not there. */
    record TriedRunView(long number, String branch, Optional<Boolean> holds) {}

    /**
     * What came of trying a condition.
     *
     * @param doubt why it means nothing; then no run is looked at
     * @param runs  the newest ones, at most 20
     */
    record ConditionView(Optional<String> doubt, List<TriedRunView> runs) {}

    private final NewestRunsMapper mapper;
    private final Evidence evidence;
    private final Json json;

    ConditionTrials(NewestRunsMapper mapper, Evidence evidence, Json json) {
        this.mapper = mapper;
        this.evidence = evidence;
        this.json = json;
    }

    /** Whether a stage would have been wanted. */
    ConditionView wanted(Registered component, String condition) {
        List<NewestRunsMapper.RunRow> rows = mapper.newest(component.id(), RUNS);
        Set<String> asks = new TreeSet<>();
        rows.forEach(row -> asks.addAll(answers(row).keySet()));
        return tried(rows, Condition.overRuns(asks, List.of()), condition, row -> List.of(facts(component, row)));
    }

    private Map<String, String> answers(NewestRunsMapper.RunRow row) {
        return json.read(row.answers(), ANSWERS);
    }

    private Map<String, Object> facts(Registered component, NewestRunsMapper.RunRow row) {
        Map<String, String> answers = new LinkedHashMap<>();
        answers(row).forEach((name, answer) -> answers.put(Condition.identifier(name), answer));
        return Map.of("component", component.name(), "branch", row.branch(), "commit", row.commitId(), "version",
                row.versionNumber(), "cause", row.kind().equals("run") ? "upstream" : row.kind(), "trusted",
                row.trusted(), "asks", answers);
    }

    /** Whether a stage would have been warned by its reports: one of its variants is enough. */
    ConditionView warned(Registered component, String stage, String condition) {
        return tried(mapper.newest(component.id(), RUNS), Condition.overReports(), condition,
                row -> mapper.stages(row.id(), stage).stream().map(evidence::facts).toList());
    }

    private interface Facts {

        List<Map<String, Object>> of(NewestRunsMapper.RunRow row);
    }

    private static ConditionView tried(List<NewestRunsMapper.RunRow> rows, Condition over, String condition,
            Facts facts) {
        Optional<String> doubt = over.doubt(condition);
        if (doubt.isPresent()) {
            return new ConditionView(doubt, List.of());
        }
        List<TriedRunView> runs = new ArrayList<>();
        for (NewestRunsMapper.RunRow row : rows) {
            List<Boolean> found = facts.of(row).stream().flatMap(each -> over.holds(condition, each).stream()).toList();
            runs.add(new TriedRunView(row.number(), row.branch(),
                    found.isEmpty() ? Optional.empty() : Optional.of(found.contains(true))));
        }
        return new ConditionView(Optional.empty(), runs);
    }
}

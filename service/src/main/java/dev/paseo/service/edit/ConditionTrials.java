package dev.paseo.service.edit;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.condition.Condition;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.Json;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Holds conditions and patterns against what was: runs, pushes, promotions. */
@Component
class ConditionTrials {

    private static final int RUNS = 20;
    private static final TypeReference<Map<String, String>> ANSWERS = new TypeReference<>() {};

    /** What a condition was for a run; {@code holds} is absent where a fact that it asks for was not there. */
    record TriedRunView(long number, String branch, Optional<Boolean> holds) {}

    /**
     * What came of trying a condition.
     *
     * @param reason why it means nothing; then no run is looked at
     * @param runs  the newest ones, at most 20
     */
    record ConditionView(Optional<String> reason, List<TriedRunView> runs) {}

    /** A push that patterns were held against. */
    record TriedPushView(String branch, String commit, boolean matches) {}

    /** What a condition over facts would have been for a version that was to be deployed. */
    record TriedDeploymentView(long deployment, String component, String version, Optional<Boolean> holds) {}

    /**
     * What came of trying a condition of a gate.
     *
     * @param reason       why it means nothing; then no deployment is looked at
     * @param deployments the newest promotions, at most 20, as the evidence of their versions is now
     */
    record FactsView(Optional<String> reason, List<TriedDeploymentView> deployments) {}

    private final NewestRunsMapper mapper;
    private final Evidence evidence;
    private final Environments environments;
    private final Json json;

    ConditionTrials(NewestRunsMapper mapper, Evidence evidence, Environments environments, Json json) {
        this.mapper = mapper;
        this.evidence = evidence;
        this.environments = environments;
        this.json = json;
    }

    /** Which of the newest pushes one of these patterns names. */
    List<TriedPushView> pushes(RegisteredComponent component, List<String> patterns) {
        List<BranchPattern> all = patterns.stream().filter(text -> !text.isBlank()).map(BranchPattern::new).toList();
        return mapper.pushes(component.id(), RUNS).stream().map(push -> new TriedPushView(push.branch(),
                push.commitId(), all.stream().anyMatch(pattern -> pattern.matches(push.branch())))).toList();
    }

    /** For which of the newest promotions into an environment a condition over facts would hold. */
    FactsView facts(Environments.Environment environment, String condition, Predicate<String> seen) {
        Condition over = Condition
                .overGates(environments.names());
        Optional<String> reason = over.reasonAgainst(condition);
        return reason.isPresent() ? new FactsView(reason, List.of())
                : new FactsView(Optional.empty(), mapper.proposed(environment.name(), RUNS).stream()
                        .filter(row -> seen.test(row.component())).map(row -> tried(over, condition, row)).toList());
    }

    private TriedDeploymentView tried(Condition over, String condition, NewestRunsMapper.ProposedRow row) {
        Map<String, Object> facts = evidence.factsOfVersion(row.version(), Optional.ofNullable(row.run()));
        facts.putAll(Map.of("component", row.component(), "version", row.number(), "branch", row.branch(), "commit",
                Optional.ofNullable(row.commitId()).orElse(""), "trusted", row.trusted()));
        return new TriedDeploymentView(row.deployment(), row.component(), row.number(),
                over.holds(condition, facts));
    }

    /** Whether a stage would have been wanted. */
    ConditionView wanted(RegisteredComponent component, String condition) {
        List<NewestRunsMapper.RunRow> rows = mapper.newest(component.id(), RUNS);
        Set<String> asks = new TreeSet<>();
        rows.forEach(row -> asks.addAll(answers(row).keySet()));
        return tried(rows, Condition.overRuns(asks, List.of()), condition, row -> List.of(facts(component, row)));
    }

    private Map<String, String> answers(NewestRunsMapper.RunRow row) {
        return json.read(row.answers(), ANSWERS);
    }

    private Map<String, Object> facts(RegisteredComponent component, NewestRunsMapper.RunRow row) {
        Map<String, String> answers = new LinkedHashMap<>();
        answers(row).forEach((name, answer) -> answers.put(Condition.identifier(name), answer));
        return Map.of("component", component.name(), "branch", row.branch(), "commit", row.commitId(), "version",
                row.versionNumber(), "cause", row.kind().equals("run") ? "upstream" : row.kind(), "trusted",
                row.trusted(), "asks", answers);
    }

    /** Whether a stage would have been warned by its reports: one of its variants is enough. */
    ConditionView warned(RegisteredComponent component, String stage, String condition) {
        return tried(mapper.newest(component.id(), RUNS), Condition.overReports(), condition,
                row -> mapper.stages(row.id(), stage).stream().map(evidence::facts).toList());
    }

    private interface Facts {

        List<Map<String, Object>> of(NewestRunsMapper.RunRow row);
    }

    private static ConditionView tried(List<NewestRunsMapper.RunRow> rows, Condition over, String condition,
            Facts facts) {
        Optional<String> reason = over.reasonAgainst(condition);
        if (reason.isPresent()) {
            return new ConditionView(reason, List.of());
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

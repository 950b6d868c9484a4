package dev.paseo.service.environment;

import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.GateRules;
import dev.paseo.language.NearestName;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.reach.Reach;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Whether the rules of a file name people who are there, and addresses that may be asked. */
@Component
class RulesChecks {

    private final Accounts accounts;
    private final Reach reach;

    RulesChecks(Accounts accounts, Reach reach) {
        this.accounts = accounts;
        this.reach = reach;
    }

    /** Groups and accounts that rules may name. */
    List<String> people() {
        List<String> people = new ArrayList<>(accounts.groups());
        people.addAll(accounts.names());
        return people;
    }

    /**
     * @param where   the path of the environment in its file
     * @param people  groups and accounts that are there
     * @param problem takes a path and what is wrong at it
     */
    void check(Rules rules, String where, List<String> people, BiConsumer<String, String> problem) {
        unknownPeople(rules, where, people, problem);
        notAllowed(rules, where, problem);
    }

    private void notAllowed(Rules rules, String where, BiConsumer<String, String> problem) {
        Stream.concat(Stream.of(rules.gates()), rules.components().values().stream())
                .flatMap(gates -> gates.toEnter().outside().stream())
                .forEach(outside -> reach.reasonAgainst(Reach.Kind.RECEIVER, outside.address())
                        .ifPresent(reason -> problem
                                .accept(where + ".to-enter.outside." + outside.name(),
                                        String.valueOf(reason.getMessage()))));
    }

    private static void unknownPeople(Rules rules, String where, List<String> people,
            BiConsumer<String, String> problem) {
        unknownPeople(rules.gates().toEnter(), where + ".to-enter", people, problem);
        unknownPeople(rules.gates().toGoOn(), where + ".to-go-on", people, problem);
        unknownPeople(rules.rollback(), where + ".rollback", people, problem);
        rules.toLoosen().orElse(List.of()).stream().filter(name -> !people.contains(name)).forEach(name -> problem
                .accept(where + ".to-loosen", "there is no group or account " + name + NearestName.hint(name, people)));
        rules.components().forEach((component, gates) -> {
            unknownPeople(gates.toEnter(), where + ".components." + component + ".to-enter", people, problem);
            unknownPeople(gates.toGoOn(), where + ".components." + component + ".to-go-on", people, problem);
        });
    }

    private static void unknownPeople(GateRules gate, String where, List<String> people,
            BiConsumer<String, String> problem) {
        Map<String, List<String>> named = new LinkedHashMap<>();
        gate.approvals().forEach(rule -> {
            named.computeIfAbsent("approvals.from", key -> new ArrayList<>()).addAll(rule.from());
            rule.escalation().ifPresent(
                    more -> named.computeIfAbsent("approvals.escalate.to", key -> new ArrayList<>()).add(more.to()));
        });
        gate.checklists()
                .forEach(list -> named.computeIfAbsent("checklist.for", key -> new ArrayList<>()).addAll(list.from()));
        named.forEach((key, names) -> names.stream().filter(name -> !people.contains(name)).forEach(name -> problem
                .accept(where + "." + key, "there is no group or account " + name + NearestName.hint(name, people))));
    }
}

package dev.paseo.service.environment;

import dev.paseo.language.piece.Difference;
import java.util.ArrayList;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.InWords;
import dev.paseo.language.environment.EnvironmentsWriter;
import dev.paseo.language.file.Names;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The rules of environments: in words, as a file, and as they were. */
@RestController
@RequestMapping("/api/v1/environments")
class RulesController {

    /**
     * The criteria of each gate in words.
     *
     * @param toLoosen   who agrees before less is asked here; empty: nobody, and what goes live within a day is
     *                   reviewed
     * @param components what single components add, or have instead
     */
    record WordsView(List<String> promotion, List<String> toGoOn, List<String> rollback, List<String> toLoosen,
            Map<String, OwnView> components) {}

    record OwnView(List<String> toEnter, List<String> toGoOn) {}

    /** {@code text} is the file that says the same. */
    record RulesView(String environment, String zone, long revision, WordsView words, String text) {}

    /** The rules from a revision on, as a file. */
    record RevisionOfRules(long revision, String by, Instant at, String text) {}

    private static final List<Action> CHANGING = List.of(Action.PROMOTE, Action.DECIDE, Action.ROLL_BACK,
            Action.EMERGENCY, Action.EDIT_ENVIRONMENT, Action.SET_SECRET);

    private final Environments environments;
    private final StoredRules stored;
    private final Exporting exporting;
    private final Accounts accounts;

    RulesController(Environments environments, StoredRules stored, Exporting exporting,
            Accounts accounts) {
        this.environments = environments;
        this.stored = stored;
        this.exporting = exporting;
        this.accounts = accounts;
    }

    /**
     * All environments and templates as the file that would load them as they are. Values of secrets are never in it.
     */
    @GetMapping("/file")
    Exporting.TextView file(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return new Exporting.TextView(exporting.all(), exporting.digest());
    }

    /** One environment under another name, to be looked over, given hosts, and loaded. */
    @GetMapping("/{name}/copy")
    Exporting.TextView copy(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam String as) {
        Permission.require(person, Action.LOOK);
        if (!Names.NAME.matcher(as).matches()) {
            throw Refusal.invalid("/as", "should be " + Names.NAME_WORDS);
        }
        return new Exporting.TextView(exporting.copy(environments.named(name), as), exporting.digest());
    }

    /** An environment's rules in force, and their history. */
    @GetMapping("/{name}/rules")
    RulesView rules(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK);
        Environments.Environment known = environments.named(name);
        Rules rules = known.rules();
        Map<String, OwnView> own = new TreeMap<>();
        rules.components().forEach((component, gates) -> own.put(component,
                new OwnView(words(gates.toEnter().criteria()), words(gates.toGoOn().criteria()))));
        return new RulesView(name, known.zone(), known.rulesRevision(),
                new WordsView(words(rules.toEnter(Kind.PROMOTION, "")), words(rules.toGoOn("")),
                        words(rules.rollback().criteria()),
                        rules.secondPerson().stream().toList(), own),
                EnvironmentsWriter.write(name, known.zone(), rules));
    }

    private static List<String> words(List<Criterion> criteria) {
        return criteria.stream().map(InWords::of).toList();
    }

    /**
     * A rule that only one of two environments has.
     *
     * @param gate before it, onward, or rollback
     * @param here whether the first has it; else the other
     */
    record RuleDifference(String gate, String sentence, boolean here) {}

    /**
     * What differs between two environments.
     *
     * @param rules in sentences; those that both have are left out
     * @param lines of a unified diff of both as the file that would load them: zone, rules, places, hosts, variables
     *              and names of secrets
     */
    record DifferencesView(List<RuleDifference> rules, List<String> lines) {}

    /** What differs between two environments; {@code other} is the second. */
    @GetMapping("/{name}/differences")
    DifferencesView differences(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam String other) {
        Permission.require(person, Action.LOOK);
        Environments.Environment one = environments.named(name);
        Environments.Environment two = environments.named(other);
        List<RuleDifference> rules = new ArrayList<>();
        differ(rules, "before it", one.rules().toEnter(Kind.PROMOTION, ""), two.rules().toEnter(Kind.PROMOTION, ""));
        differ(rules, "onward", one.rules().toGoOn(""), two.rules().toGoOn(""));
        differ(rules, "rollback", one.rules().rollback().criteria(), two.rules().rollback().criteria());
        return new DifferencesView(rules, Difference.of(exporting.copy(one, "environment"),
                exporting.copy(two, "environment")));
    }

    private static void differ(List<RuleDifference> found, String gate, List<Criterion> one, List<Criterion> two) {
        List<String> here = words(one);
        List<String> there = words(two);
        here.stream().filter(each -> !there.contains(each))
                .forEach(each -> found.add(new RuleDifference(gate, each, true)));
        there.stream().filter(each -> !here.contains(each))
                .forEach(each -> found.add(new RuleDifference(gate, each, false)));
    }

    /** Lists the newest 50 revisions of an environment's rules. */
    @GetMapping("/{name}/rules/history")
    List<RevisionOfRules> history(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK);
        Environments.Environment known = environments.named(name);
        return environments.rulesHistory(known.id()).stream()
                .map(row -> new RevisionOfRules(row.revision(), row.by(), row.at(),
                        EnvironmentsWriter.write(name, known.zone(), stored.read(row.rules()))))
                .toList();
    }

    /** What somebody may do there, and by which role. */
    record MayView(String account, List<String> groups, List<ActionView> may) {}

    record ActionView(String action, String words, String because) {}

    /**
     * Who may change anything there, and why.
     *
     * @param component who may for this component; without: for all of them
     */
    @GetMapping("/{name}/people")
    List<MayView> people(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam Optional<String> component) {
        Permission.require(person, Action.LOOK, component, Optional.of(name));
        environments.named(name);
        return accounts.people().stream()
                .map(each -> new MayView(each.name(), each.groups().stream().sorted().toList(), CHANGING.stream()
                        .filter(action -> each.may(action, component, Optional.of(name)))
                        .map(action -> new ActionView(action.name().toLowerCase(Locale.ROOT).replace('_', '-'),
                                action.words(), each.because(action, component, Optional.of(name))))
                        .toList()))
                .filter(each -> !each.may().isEmpty()).toList();
    }
}

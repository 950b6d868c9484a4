package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.service.database.Json;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.loosening.Wanted;
import dev.paseo.service.problem.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What is asked before a file is loaded: that it is meant, that nothing changed meanwhile, and a second person. */
@Component
class LoadingAsks {

    private final EnvironmentMapper mapper;
    private final EnvironmentChecks checks;
    private final Exporting exporting;
    private final RulesLoosened loosened;
    private final Agreements agreements;
    private final Json json;

    LoadingAsks(EnvironmentMapper mapper, EnvironmentChecks checks, Exporting exporting, RulesLoosened loosened,
            Agreements agreements, Json json) {
        this.mapper = mapper;
        this.checks = checks;
        this.exporting = exporting;
        this.loosened = loosened;
        this.agreements = agreements;
        this.json = json;
    }

    void askSecond(String text, EnvironmentsFile file, Loading.Meant meant, Person by) {
        List<EnvironmentChecks.Change> loosens = checks.loosens(file);
        refuseUnmeant(loosens, meant.loosen());
        String now = exporting.digest();
        if (meant.base().filter(base -> !base.equals(now)).isPresent()) {
            throw changed();
        }
        List<String> what = new ArrayList<>(
                loosens.stream().map(each -> each.environment() + " is loosened: " + each.what()).toList());
        checks.changes(file).forEach(each -> what.add(each.environment() + ": " + each.what()));
        agreements.ask(
                new Wanted(RulesCarrier.KIND, what, json.write(new RulesCarrier.File(text, now)),
                        loosened.asked(loosens)),
                by);
    }

    private static Refusal changed() {
        return Refusal
                .conflict("The environments have changed since you began: look at the difference, and load it again");
    }

    static void refuseUnmeant(List<EnvironmentChecks.Change> loosens, boolean loosen) {
        if (!loosens.isEmpty() && !loosen) {
            throw Refusal.conflict("Nothing was loaded, for the file loosens rules: "
                    + loosens.stream().map(each -> each.environment() + ": " + each.what())
                            .collect(Collectors.joining("; "))
                    + ". Say that this is meant: paseo environment load FILE --loosen, or “These are meant” in the "
                    + "console.");
        }
    }

    /** From here on until the transaction ends nobody else changes them. */
    void unchanged(String base) {
        mapper.lockAll();
        mapper.lockPlaces();
        if (!base.equals(exporting.digest())) {
            throw changed();
        }
    }
}

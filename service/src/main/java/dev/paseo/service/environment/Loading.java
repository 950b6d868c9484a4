package dev.paseo.service.environment;

import dev.paseo.core.access.Person;
import dev.paseo.language.Problem;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.service.change.Changes;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Loads environments files: all of a file in one transaction, or nothing of it. What changed gets a new revision. */
@Component
class Loading {

    private final EnvironmentChecks checks;
    private final LoadingAsks asks;
    private final LoadedRows rows;
    private final RulesLoosened loosened;
    private final Changes changes;

    Loading(EnvironmentChecks checks, LoadingAsks asks, LoadedRows rows, RulesLoosened loosened, Changes changes) {
        this.checks = checks;
        this.asks = asks;
        this.rows = rows;
        this.loosened = loosened;
        this.changes = changes;
    }

    /**
     * How a file is meant.
     *
     * @param base     the digest of what the text was made from: where that has changed meanwhile, nothing is loaded
     * @param loosen   what the file asks less than now is meant
     * @param agreedBy who agreed to what it loosens, where somebody was asked
     */
    record Meant(Optional<String> base, boolean loosen, Optional<String> agreedBy) {}

    /**
     * Loads all of a file.
     *
     * @return what should be changed in the file all the same
     */
    List<Problem> load(String text, Meant meant, Person by) {
        EnvironmentChecks.Checked checked = checks.check(text);
        if (!checked.problems().isEmpty()) {
            throw Refusal.unprocessable("The environments file has problems",
                    checked.problems().stream().map(Problem::toString).collect(Collectors.joining("\n")));
        }
        EnvironmentsFile file = checked.file().orElseThrow();
        if (meant.agreedBy().isEmpty()) {
            asks.askSecond(text, file, meant, by);
        }
        changes.run(() -> {
            meant.base().ifPresent(asks::unchanged);
            List<EnvironmentChecks.Change> loosens = checks.loosens(file);
            LoadingAsks.refuseUnmeant(loosens, meant.loosen());
            Map<String, List<String>> asked = loosened.asked(loosens);
            if (meant.agreedBy().isEmpty() && !asked.isEmpty()) {
                throw Refusal.conflict(
                        "Somebody changed the rules meanwhile: look at the difference, and load the file again");
            }
            rows.load(file, by);
            loosens.forEach(each -> loosened.loosened(each, asked.containsKey(each.environment()), meant, by));
            changes.publish("environment", "all");
        });
        return checked.warnings();
    }

    /** Settings as they would be written now: those that an earlier release wrote may look otherwise. */
    static String asWrittenNow(String settings, Json json) {
        return json.write(json.read(settings, Environments.PlaceSettings.class));
    }

    /** The settings of a place as a file says them; {@code variables} are those of the environment and the place. */
    static Environments.PlaceSettings settings(EnvironmentsFile.Place wanted, Map<String, String> variables) {
        Map<String, Environments.HostSettings> hosts = new LinkedHashMap<>();
        wanted.hosts()
                .forEach((name, host) -> hosts.put(name,
                        new Environments.HostSettings(host.url(), host.variables(), host.side(),
                                host.ssh().map(ssh -> new Environments.Ssh(ssh.address(), ssh.port(), ssh.user(),
                                        ssh.key(), ssh.hostKey(), ssh.folder())))));
        return new Environments.PlaceSettings(1, wanted.url(), variables, hosts, wanted.secrets(), wanted.acting());
    }

    /** The variables of a place: its own beat those of the environment. */
    static Map<String, String> variables(EnvironmentsFile.Environment environment, EnvironmentsFile.Place place) {
        Map<String, String> variables = new LinkedHashMap<>(environment.variables());
        variables.putAll(place.variables());
        return variables;
    }
}

package dev.paseo.service.environment;

import dev.paseo.core.text.Sha256;
import dev.paseo.language.environment.EnvironmentsFile;
import dev.paseo.language.environment.EnvironmentsWriter;
import dev.paseo.service.database.Json;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Writes environments as the file that would load them as they are. */
@Component
public class Exporting {

    /**
     * The text of an environments file; {@code digest} is the SHA-256 of the whole one, to be sent along as {@code
     * base} with what is made of it.
     */
    public record TextView(String text, String digest) {}

    private final EnvironmentMapper mapper;
    private final Environments environments;
    private final Json json;

    Exporting(EnvironmentMapper mapper, Environments environments, Json json) {
        this.mapper = mapper;
        this.environments = environments;
        this.json = json;
    }

    String all() {
        return EnvironmentsWriter.write(file());
    }

    public EnvironmentsFile file() {
        List<EnvironmentsFile.Template> previews = mapper.templates().stream()
                .map(body -> json.read(body, EnvironmentsFile.Template.class)).toList();
        return new EnvironmentsFile(
                environments.all().stream().map(known -> environment(known, known.name())).toList(), previews);
    }

    /** SHA-256 of all of it. */
    public String digest() {
        return Sha256.hex(all());
    }

    /** One environment, under another name: to be looked over, given hosts, and loaded. */
    String copy(Environments.Environment known, String as) {
        return EnvironmentsWriter.write(new EnvironmentsFile(List.of(environment(known, as)), List.of()));
    }

    private EnvironmentsFile.Environment environment(Environments.Environment known, String name) {
        Map<Long, Map<String, String>> agents = new HashMap<>();
        mapper.hostsIn(known.id()).stream().filter(row -> row.agent() != null).forEach(
                row -> agents.computeIfAbsent(row.place(), place -> new HashMap<>()).put(row.host(), row.agent()));
        Map<String, EnvironmentsFile.Place> places = new LinkedHashMap<>();
        mapper.settingsIn(known.id()).forEach(row -> places.put(row.component(),
                place(json.read(row.settings(), Environments.PlaceSettings.class),
                        agents.getOrDefault(row.place(), Map.of()))));
        return new EnvironmentsFile.Environment(name, known.zone(), known.rules(), Map.of(), places);
    }

    private static EnvironmentsFile.Place place(Environments.PlaceSettings settings, Map<String, String> agents) {
        Map<String, EnvironmentsFile.Host> hosts = new LinkedHashMap<>();
        settings.hosts()
                .forEach((name, host) -> hosts.put(name,
                        new EnvironmentsFile.Host(host.url(), host.variables(), host.side(),
                                host.ssh().map(ssh -> new EnvironmentsFile.Ssh(agents.getOrDefault(name, ""),
                                        ssh.address(), ssh.port(), ssh.user(), ssh.key(), ssh.hostKey(),
                                        ssh.folder())))));
        return new EnvironmentsFile.Place(settings.url(), hosts, settings.variables(), settings.secrets(),
                settings.acting());
    }
}

package dev.paseo.language.environment;

import static dev.paseo.language.file.Names.NAME;
import static dev.paseo.language.file.Names.NAME_WORDS;
import static dev.paseo.language.file.Names.VARIABLE;
import static dev.paseo.language.file.Names.VARIABLE_WORDS;

import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import dev.paseo.language.Document;
import dev.paseo.language.FormerWords;
import dev.paseo.language.NearestName;
import dev.paseo.language.Reading;
import dev.paseo.language.Value;
import dev.paseo.language.calendar.Periods;
import dev.paseo.language.condition.Condition;
import dev.paseo.language.environment.EnvironmentsFile.Environment;
import dev.paseo.language.environment.EnvironmentsFile.Host;
import dev.paseo.language.environment.EnvironmentsFile.Place;
import dev.paseo.language.environment.EnvironmentsFile.Ssh;
import dev.paseo.language.environment.EnvironmentsFile.Template;
import java.net.URI;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads environments files. */
public final class EnvironmentsFileReader {

    private static final Pattern SSH_ADDRESS = Pattern.compile("[A-Za-z0-9.:-]{1,200}");
    private static final Pattern SSH_USER = Pattern.compile("[A-Za-z_][A-Za-z0-9_.-]{0,63}");
    private static final Pattern HOST_KEY = Pattern.compile("[a-z0-9@.-]+ [A-Za-z0-9+/=]{20,2000}");
    private static final Pattern FOLDER = Pattern.compile("(~/|/)[A-Za-z0-9._/-]{1,200}");

    private final Document document;

    private final Set<String> there;

    private EnvironmentsFileReader(String text, Collection<String> there) {
        this.document = new Document(text);
        this.there = new LinkedHashSet<>(there);
    }

    /** Reads a file that stands alone. */
    public static Reading<EnvironmentsFile> read(String text) {
        return read(text, Set.of());
    }

    /** @param there environments that are there already, and which the file may refer to without saying them again */
    public static Reading<EnvironmentsFile> read(String text, Collection<String> there) {
        EnvironmentsFileReader reader = new EnvironmentsFileReader(text, there);
        return reader.document.reading(reader.document.root().map(reader::file));
    }

    private EnvironmentsFile file(Value root) {
        List<Environment> environments = new ArrayList<>();
        Map<String, Value> top = root.entries(List.of("environments", "previews"));
        Map<String, Value> named = top.containsKey("environments") ? top.get("environments").entries() : Map.of();
        if (named.isEmpty()) {
            root.problem("needs environments: at least one");
        }
        Set<String> all = new LinkedHashSet<>(there);
        all.addAll(named.keySet());
        Set<String> seen = new LinkedHashSet<>(there);
        seen.removeAll(named.keySet());
        named.forEach((name, body) -> {
            if (!NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + NAME_WORDS);
            }
            environments.add(environment(name, body, seen, all));
            seen.add(name);
        });
        List<Template> previews = new ArrayList<>();
        optional(top, "previews").map(Value::entries).orElse(Map.of())
                .forEach((name, body) -> new TemplateReader(all).read(name, body).ifPresent(previews::add));
        return new EnvironmentsFile(environments, previews);
    }

    private Environment environment(String name, Value body, Set<String> before, Set<String> all) {
        Map<String, Value> entries = body.entries(List.of("zone", "follows", "branches", "tags", "uploads",
                "components", "to-enter", "to-go-on", "rollback", "newer-version",
                "replaceable", "closed", "to-loosen", "variables"), FormerWords.GATES);
        String zone = optional(entries, "zone").flatMap(this::zone).orElse("UTC");
        GateReader gates = new GateReader(ZoneId.of(zone), Condition.overGates(all));
        Map<String, Place> places = new LinkedHashMap<>();
        Map<String, Rules.Gates> own = new LinkedHashMap<>();
        optional(entries, "components").map(Value::entries).orElse(Map.of()).forEach((component, place) -> {
            Map<String, Value> inner = place.entries(
                    List.of("url", "hosts", "variables", "secrets", "acts", "to-enter", "to-go-on"), FormerWords.GATES);
            places.put(component, place(place, inner));
            Rules.Gates its = gates(inner, gates);
            if (!its.equals(Rules.Gates.NONE)) {
                own.put(component, its);
            }
        });
        boolean takesOver = optional(entries, "newer-version")
                .flatMap(value -> value.choice(Map.of("waits", false, "takes-over", true))).orElse(false);
        Criterion.Origin origin = new Criterion.Origin(
                optional(entries, "branches").map(Value::texts).orElse(List.of()),
                optional(entries, "tags").map(Value::texts).orElse(List.of()),
                optional(entries, "uploads").flatMap(Value::flag).orElse(false));
        Rules rules = new Rules(Rules.FORMAT,
                optional(entries, "follows").flatMap(value -> follows(value, before, all)), origin,
                gates(entries, gates),
                optional(entries, "rollback").map(gates::read).orElse(GateRules.NONE), takesOver,
                optional(entries, "replaceable").flatMap(Value::flag).orElse(false), own,
                optional(entries, "closed").flatMap(EnvironmentsFileReader::calendar),
                optional(entries, "to-loosen").map(Value::texts).filter(names -> !names.isEmpty()));
        return new Environment(name, zone, rules, variables(entries), places);
    }

    private static Rules.Gates gates(Map<String, Value> entries, GateReader gates) {
        return new Rules.Gates(optional(entries, "to-enter").map(gates::read).orElse(GateRules.NONE),
                optional(entries, "to-go-on").map(gates::read).orElse(GateRules.NONE));
    }

    private static Optional<Criterion.Follows> follows(Value value, Set<String> before, Set<String> all) {
        boolean any = false;
        List<Value> names = List.of(value);
        if (value.isMap()) {
            Map<String, Value> entries = value.entries(List.of("any", "all"));
            if (entries.size() != 1) {
                value.problem("should be an environment, or any: or all: of a list of them");
                return Optional.empty();
            }
            any = entries.containsKey("any");
            names = entries.values().iterator().next().items();
        }
        names.forEach(each -> each.text().filter(other -> !before.contains(other))
                .ifPresent(other -> each.problem(all.contains(other)
                        ? "should come after " + other + " in the file"
                        : "there is no environment " + other + NearestName.hint(other, before))));
        return Optional.of(new Criterion.Follows(names.stream().map(Value::plain).toList(), any));
    }

    private static Optional<String> calendar(Value value) {
        Optional<String> text = value.text();
        text.ifPresent(each -> {
            try {
                Periods.of(each);
            } catch (Periods.NoCalendar wrong) {
                value.problem(String.valueOf(wrong.getMessage()));
            }
        });
        return text;
    }

    static Optional<Value> optional(Map<String, Value> entries, String key) {
        return Optional.ofNullable(entries.get(key));
    }

    private Optional<String> zone(Value value) {
        return value.text().filter(zone -> {
            try {
                return ZoneId.of(zone) != null;
            } catch (DateTimeException unknown) {
                value.problem("is not a time zone, such as Europe/Madrid");
                return false;
            }
        });
    }

    private Place place(Value body, Map<String, Value> entries) {
        Map<String, Host> hosts = new LinkedHashMap<>();
        optional(entries, "hosts").map(Value::entries).orElse(Map.of())
                .forEach((name, host) -> hosts.put(name, host(name, host)));
        if (hosts.isEmpty()) {
            body.problem("needs hosts: where the component runs");
        }
        long sides = hosts.values().stream().flatMap(host -> host.side().stream()).distinct().count();
        if (sides == 1 || sides > 2 || sides == 2 && hosts.values().stream().anyMatch(host -> host.side().isEmpty())) {
            body.problem("should have every host on one of two sides, or none on any");
        }
        Optional<String> acting = optional(entries, "acts").flatMap(value -> value.text().filter(name -> {
            if (!hosts.containsKey(name)) {
                value.problem("is none of its hosts" + NearestName.hint(name, hosts.keySet()));
            }
            return hosts.containsKey(name);
        }));
        return new Place(optional(entries, "url").flatMap(EnvironmentsFileReader::address), hosts, variables(entries),
                secrets(entries), acting);
    }

    private Host host(String name, Value host) {
        if (!NAME.matcher(name).matches()) {
            host.problemWithName("its name should be " + NAME_WORDS);
        }
        Map<String, Value> inner = host.entries(List.of("url", "variables", "side", "ssh"));
        return new Host(optional(inner, "url").flatMap(EnvironmentsFileReader::address), variables(inner),
                optional(inner, "side").flatMap(side -> side.text(NAME, "a side's name: " + NAME_WORDS)),
                optional(inner, "ssh").flatMap(this::ssh));
    }

    private Optional<Ssh> ssh(Value value) {
        Map<String, Value> entries = value
                .entries(List.of("agent", "address", "port", "user", "key", "host-key", "folder"));
        Optional<String> agent = require(value, entries, "agent", "agent: the one that reaches it")
                .flatMap(each -> each.text(NAME, "an agent's name"));
        Optional<String> address = require(value, entries, "address", "address: its name or number")
                .flatMap(each -> each.text(SSH_ADDRESS, "a host's name or number"));
        Optional<String> user = require(value, entries, "user", "user: who recipes are there")
                .flatMap(each -> each.text(SSH_USER, "a user's name"));
        Optional<String> key = require(value, entries, "key", "key: the name of the secret with the private key")
                .flatMap(each -> each.text(VARIABLE, VARIABLE_WORDS));
        Optional<String> hostKey = require(value, entries, "host-key", "host-key: the only key that it may show")
                .flatMap(each -> each.text(HOST_KEY, "a key as in a known_hosts file, such as \"ssh-ed25519 AAAA…\""));
        Optional<String> folder = require(value, entries, "folder", "folder: where recipes work on it")
                .flatMap(each -> each.text(FOLDER, "a path that begins with / or ~/"));
        int port = optional(entries, "port").flatMap(each -> each.number(1, 65535)).orElse(22);
        return agent.flatMap(by -> address.flatMap(at -> user.flatMap(who -> key.flatMap(secret -> hostKey
                .flatMap(pinned -> folder.map(where -> new Ssh(by, at, port, who, secret, pinned, where)))))));
    }

    static List<String> secrets(Map<String, Value> entries) {
        return optional(entries, "secrets").map(value -> value.items().stream()
                .flatMap(item -> item.text(VARIABLE, VARIABLE_WORDS).stream()).toList()).orElse(List.of());
    }

    static Optional<Value> require(Value owner, Map<String, Value> entries, String key, String words) {
        if (!entries.containsKey(key)) {
            owner.problem("needs " + words);
        }
        return optional(entries, key);
    }

    static Map<String, String> variables(Map<String, Value> entries) {
        return optional(entries, "variables").map(value -> value.textsByName(VARIABLE, VARIABLE_WORDS))
                .orElse(Map.of());
    }

    static Optional<String> address(Value value) {
        Optional<String> text = value.text();
        boolean good = text.isPresent() && text.get().matches("https?://[^\\s\"<>]+") && isUri(text.get());
        if (text.isPresent() && !good) {
            value.problem("should be an address that begins with http:// or https://");
        }
        return text;
    }

    private static boolean isUri(String text) {
        try {
            return !URI.create(text).getHost().isEmpty();
        } catch (IllegalArgumentException | NullPointerException wrong) {
            return false;
        }
    }
}

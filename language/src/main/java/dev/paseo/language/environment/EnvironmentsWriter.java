package dev.paseo.language.environment;

import dev.paseo.core.text.Length;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.Hours;
import java.time.DayOfWeek;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.snakeyaml.engine.v2.api.Dump;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;

/** Writes environments files: what is read again is what was written. */
public final class EnvironmentsWriter {

    private EnvironmentsWriter() {}

    public static String write(EnvironmentsFile file) {
        Map<String, Object> environments = new LinkedHashMap<>();
        file.environments().forEach(each -> environments.put(each.name(), environment(each)));
        Map<String, Object> top = new LinkedHashMap<>(Map.of("environments", environments));
        Map<String, Object> previews = new LinkedHashMap<>();
        file.previews().forEach(each -> previews.put(each.name(), template(each)));
        put(top, "previews", previews);
        return dump(top);
    }

    /** The rules alone, as they stand in the file. */
    public static String write(String name, String zone, Rules rules) {
        return dump(Map.of("environments",
                Map.of(name, environment(new EnvironmentsFile.Environment(name, zone, rules, Map.of(), Map.of())))));
    }

    private static String dump(Map<String, Object> top) {
        return new Dump(
                DumpSettings.builder().setDefaultFlowStyle(FlowStyle.BLOCK).setWidth(1000).setSplitLines(false).build())
                .dumpToString(top);
    }

    /** What says nothing is left out. */
    private static void put(Map<String, Object> map, String key, Object value) {
        switch (value) {
            case Optional<?> perhaps -> perhaps.ifPresent(inner -> put(map, key, inner));
            case Duration length -> map.put(key, Length.written(length));
            case Map<?, ?> inner when inner.isEmpty() -> {}
            case Collection<?> items when items.isEmpty() -> {}
            case Boolean flag when !flag -> {}
            default -> map.put(key, value);
        }
    }

    private static Map<String, Object> environment(EnvironmentsFile.Environment environment) {
        Rules rules = environment.rules();
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("zone", environment.zone());
        rules.follows().ifPresent(follows -> map.put("follows", follows.any() ? Map.of("any", follows.environments())
                : follows.environments().size() == 1 ? follows.environments().getFirst()
                        : Map.of("all", follows.environments())));
        put(map, "branches", rules.origin().branches());
        put(map, "tags", rules.origin().tags());
        put(map, "uploads", rules.origin().uploads());
        gates(map, rules.gates());
        put(map, "rollback", gate(rules.rollback()));
        if (rules.takesOver()) {
            map.put("newer-version", "takes-over");
        }
        put(map, "replaceable", rules.replaceable());
        put(map, "closed", rules.closed());
        put(map, "to-loosen", rules.toLoosen());
        put(map, "variables", environment.variables());
        Map<String, Object> components = new LinkedHashMap<>();
        environment.components().forEach((name, place) -> components.put(name,
                place(place, rules.components().getOrDefault(name, Rules.Gates.NONE))));
        put(map, "components", components);
        return map;
    }

    private static void gates(Map<String, Object> map, Rules.Gates gates) {
        put(map, "to-enter", gate(gates.toEnter()));
        put(map, "to-go-on", gate(gates.toGoOn()));
    }

    /** Each by its name where it has one. */
    private static Object facts(GateRules gate) {
        return one(gate.facts().stream().map(condition -> gate.factName(condition)
                .<Object>map(name -> Map.of(name, condition)).orElse(condition)).toList());
    }

    private static Map<String, Object> gate(GateRules gate) {
        Map<String, Object> map = new LinkedHashMap<>();
        put(map, "approvals", one(gate.approvals().stream().map(EnvironmentsWriter::approvals).toList()));
        put(map, "checklist", one(gate.checklists().stream().map(list -> {
            Map<String, Object> inner = new LinkedHashMap<>();
            inner.put("for", one(list.from()));
            inner.put("items", list.items());
            return inner;
        }).toList()));
        put(map, "live-for", gate.liveFor());
        gate.open().ifPresent(hours -> map.put("open", hours(hours)));
        put(map, "facts", facts(gate));
        Map<String, Object> outside = new LinkedHashMap<>();
        gate.outside().forEach(each -> {
            Map<String, Object> inner = new LinkedHashMap<>(Map.of("url", each.address()));
            put(inner, "within", each.within());
            outside.put(each.name(), inner);
        });
        put(map, "outside", outside);
        return map;
    }

    private static Object one(List<?> items) {
        return items.size() == 1 ? items.getFirst() : items;
    }

    private static Map<String, Object> approvals(Criterion.Approvals rule) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("from", one(rule.from()));
        map.put("count", rule.count());
        put(map, "not-by", rule.notBy().stream().map(who -> who.name().toLowerCase(Locale.ROOT)).toList());
        if (rule.commentRequired()) {
            map.put("comment", "required");
        }
        rule.unknown().ifPresent(
                what -> map.put("unknown-authors", what == Criterion.UnknownAuthors.ASK ? "ask" : "one-more"));
        put(map, "within", rule.within());
        rule.escalation().ifPresent(more -> {
            Map<String, Object> inner = new LinkedHashMap<>();
            put(inner, "after", more.after());
            inner.put("to", more.to());
            map.put("escalate", inner);
        });
        return map;
    }

    private static Object hours(Hours hours) {
        List<String> windows = hours.windows().stream().map(window -> days(window) + " " + span(window.span()))
                .toList();
        if (hours.exceptions().isEmpty()) {
            return windows;
        }
        List<String> except = new ArrayList<>();
        new TreeSet<>(hours.exceptions().keySet()).forEach(day -> {
            List<Hours.Span> spans = hours.exceptions().get(day);
            spans.forEach(span -> except.add(day + " " + span(span)));
            if (spans.isEmpty()) {
                except.add(day.toString());
            }
        });
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("hours", windows);
        map.put("except", except);
        return map;
    }

    private static String days(Hours.Window window) {
        return window.days().size() == 7 ? "daily"
                : String.join(",", new TreeSet<>(window.days()).stream().map(DayOfWeek::getValue)
                        .map(day -> GateReader.DAYS.get(day - 1)).toList());
    }

    private static String span(Hours.Span span) {
        return span.from() + "-" + span.end();
    }

    private static Map<String, Object> place(EnvironmentsFile.Place place, Rules.Gates own) {
        Map<String, Object> map = new LinkedHashMap<>();
        put(map, "url", place.url());
        Map<String, Object> hosts = new LinkedHashMap<>();
        place.hosts().forEach((name, host) -> hosts.put(name, host(host)));
        map.put("hosts", hosts);
        put(map, "acts", place.acting());
        put(map, "variables", place.variables());
        put(map, "secrets", place.secrets());
        gates(map, own);
        return map;
    }

    private static Map<String, Object> host(EnvironmentsFile.Host host) {
        Map<String, Object> map = new LinkedHashMap<>();
        put(map, "url", host.url());
        put(map, "variables", host.variables());
        put(map, "side", host.side());
        host.ssh().ifPresent(ssh -> {
            Map<String, Object> inner = new LinkedHashMap<>();
            inner.put("agent", ssh.agent());
            inner.put("address", ssh.address());
            inner.put("port", ssh.port());
            inner.put("user", ssh.user());
            inner.put("key", ssh.key());
            inner.put("host-key", ssh.hostKey());
            inner.put("folder", ssh.folder());
            map.put("ssh", inner);
        });
        return map;
    }

    private static Map<String, Object> template(EnvironmentsFile.Template template) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("component", template.component());
        map.put("host", template.host());
        map.put("url", template.url());
        map.put("ports", template.firstPort() + "-" + template.lastPort());
        map.put("most", template.most());
        put(map, "after", template.after());
        put(map, "promotion", template.promotion());
        put(map, "variables", template.variables());
        put(map, "secrets", template.secrets());
        return map;
    }
}

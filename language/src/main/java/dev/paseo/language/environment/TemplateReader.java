package dev.paseo.language.environment;

import static dev.paseo.language.environment.EnvironmentsFileReader.optional;
import static dev.paseo.language.environment.EnvironmentsFileReader.require;
import static dev.paseo.language.environment.EnvironmentsFileReader.secrets;
import static dev.paseo.language.environment.EnvironmentsFileReader.variables;
import static dev.paseo.language.file.Names.NAME;
import static dev.paseo.language.file.Names.NAME_WORDS;

import dev.paseo.language.NearestName;
import dev.paseo.language.Value;
import dev.paseo.language.environment.EnvironmentsFile.Template;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads templates of preview environments. */
final class TemplateReader {

    private static final Duration LONGEST = Duration.ofDays(365);
    private static final Pattern PORTS = Pattern.compile("[0-9]{4,5}-[0-9]{4,5}");

    private final Set<String> environments;

    TemplateReader(Set<String> environments) {
        this.environments = environments;
    }

    Optional<Template> read(String name, Value body) {
        if (!NAME.matcher(name).matches() || name.length() > 20) {
            body.problemWithName("its name should be " + NAME_WORDS + ", and at most 20");
        }
        Map<String, Value> entries = body.entries(
                List.of("component", "host", "url", "ports", "most", "after", "promotion", "variables", "secrets"));
        Optional<String> component = require(body, entries, "component", "component: whose branches get previews")
                .flatMap(Value::text);
        Optional<String> host = require(body, entries, "host", "host: where previews run")
                .flatMap(value -> value.text(NAME, NAME_WORDS));
        Optional<String> url = require(body, entries, "url", "url: the address of a preview, with {port}")
                .flatMap(Value::text);
        url.filter(text -> !text.contains("{port}")).ifPresent(
                text -> entries.get("url").problem("should have {port} in it, which each preview has of its own"));
        Optional<String> ports = require(body, entries, "ports", "ports: the first and the last, such as 7700-7719")
                .flatMap(value -> value.text(PORTS, "the first and the last port, such as 7700-7719"));
        int first = ports.map(text -> Integer.parseInt(text.substring(0, text.indexOf('-')))).orElse(0);
        int last = ports.map(text -> Integer.parseInt(text.substring(text.indexOf('-') + 1))).orElse(0);
        ports.filter(text -> first > last || first < 1024 || last > 65535).ifPresent(
                text -> entries.get("ports").problem("should go from a port to a higher one, from 1024 to 65535"));
        optional(entries, "promotion")
                .ifPresent(value -> value.text().filter(other -> !environments.contains(other)).ifPresent(other -> value
                        .problem("there is no environment " + other + NearestName.hint(other, environments))));
        Optional<Duration> after = optional(entries, "after").flatMap(value -> value.duration(LONGEST));
        int most = optional(entries, "most").flatMap(value -> value.number(1, 500))
                .orElse(Math.max(1, last - first + 1));
        return component.flatMap(owner -> host
                .flatMap(where -> url.map(at -> new Template(name, owner, where, at, first, last, most, after,
                        optional(entries, "promotion").map(Value::plain), variables(entries), secrets(entries)))));
    }
}

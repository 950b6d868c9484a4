package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.github.therapi.runtimejavadoc.CommentFormatter;
import com.github.therapi.runtimejavadoc.RuntimeJavadoc;
import dev.paseo.cli.Context;
import dev.paseo.cli.command.Commands;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Role;
import dev.paseo.service.settings.ProviderSettings;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.witness.WitnessSettings;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.lang.reflect.RecordComponent;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import picocli.CommandLine;

/** Pages of the reference that are made from the code are as the code is; with -Dpaseo.update=true they are written. */
class ReferenceTest {

    private static final String MADE = "<!-- Made from the code by script/reference; do not edit. -->\n";

    private static void isAsMade(String page, String made) throws IOException {
        Path file = TestDatabase.ROOT.resolve("docs/reference/" + page);
        if (Boolean.getBoolean("paseo.update")) {
            Files.createDirectories(file.getParent());
            Files.writeString(file, MADE + made);
        }
        assertEquals(MADE + made, Files.readString(file), "run script/reference");
    }

    @Test
    void theClientsPageIsItsOwnHelp() throws IOException {
        Context context = new Context(new PrintWriter(new StringWriter()), InputStream.nullInputStream(), Map.of(),
                false);
        StringBuilder page = new StringBuilder(
                "# The client\n\nEvery command of `paseo`, as its own `--help` says it.\n");
        CommandLine all = Commands.line(context, "");
        command(all, "paseo", page);
        assertTrue(page.toString().split("\n## ").length > 70, "commands are missing");
        String token = page.substring(page.indexOf("## paseo token make"), page.indexOf("## paseo token list"))
                .replaceAll("\\s+", " ");
        Arrays.stream(Action.values()).forEach(action -> assertTrue(
                token.replaceAll(".* is one of", " ").contains(" " + action.word()), action + " is not said"));
        isAsMade("client.md", page.toString());
    }

    private static void command(CommandLine line, String name, StringBuilder page) {
        line.setColorScheme(CommandLine.Help.defaultColorScheme(CommandLine.Help.Ansi.OFF)).setUsageHelpWidth(110);
        page.append("\n## ").append(name).append("\n\n```\n")
                .append(line.getUsageMessage(CommandLine.Help.Ansi.OFF).stripTrailing().lines()
                        .map(String::stripTrailing).collect(Collectors.joining("\n")))
                .append("\n```\n");
        line.getSubcommands().forEach((word, each) -> command(each, name + " " + word, page));
    }

    @Test
    void eachTypeOfProblemHasItsLine() throws IOException {
        StringBuilder page = new StringBuilder("""
                # Problems

                A refused request is answered with a problem detail (RFC 9457, `application/problem+json`). `type` is
                stable, for programs, and the service's page about it; `detail` is for people. `pointer` is the JSON
                pointer (RFC 6901) of the field that is wrong; where several are, `errors` has each with its own
                `pointer` and `detail`.

                | `type` | status | what it means, and what to do |
                |---|---|---|
                """);
        Arrays.stream(Refusal.Kind.values()).forEach(kind -> page.append("| `").append(kind.type()).append("` | ")
                .append(kind.status()).append(" | ").append(kind.words()).append(" |\n"));
        isAsMade("problems.md", page.toString());
    }

    private static String row(String name, String standard, String words) {
        return "| `" + name + "` | " + (standard.isEmpty() ? "" : "`" + standard + "`") + " | " + words + " |\n";
    }

    /** The settings of a record, by its Javadoc. */
    private static String settings(Class<?> type) {
        String prefix = type.getAnnotation(ConfigurationProperties.class).value();
        Map<String, String> words = new HashMap<>();
        RuntimeJavadoc.getJavadoc(type).getRecordComponents()
                .forEach(each -> words.put(each.getName(), new CommentFormatter().format(each.getComment())
                        .replaceAll("</?code>", "`").replaceAll("\\s+", " ").replace("` ", "` ").strip()));
        StringBuilder rows = new StringBuilder();
        for (RecordComponent component : type.getRecordComponents()) {
            String name = component.getName().replaceAll("([A-Z])", "-$1").toLowerCase(Locale.ROOT);
            DefaultValue standard = Arrays.stream(type.getDeclaredConstructors()[0].getParameters())
                    .filter(each -> each.getName().equals(component.getName())).findFirst().orElseThrow()
                    .getAnnotation(DefaultValue.class);
            assertTrue(!words.getOrDefault(component.getName(), "").isBlank(), component + " has no words");
            rows.append(row(prefix + "." + name, standard == null ? "" : String.join(",", standard.value()),
                    words.get(component.getName())));
        }
        return rows.toString();
    }

    @Test
    void theSettingsAreThoseOfTheService() throws Exception {
        String head = "| setting | default | meaning |\n|---|---|---|\n";
        isAsMade("settings.md", """
                # Settings

                In a file with which the service is started, one `name=value` a line:
                `--spring.config.additional-location=file:service.properties`. Lengths of time are written `30s`, `5m`,
                `7d`; sizes `2MB`, `500GB`; lists with commas.

                """ + head + settings(Settings.class)
                + row("paseo.poll", "30s",
                        "how often repositories and observed stores are looked at where no hook tells; "
                                + "one that does not answer is looked at less and less often, at least every half hour")
                + row("paseo.database.port", "", "the port of MariaDB on 127.0.0.1")
                + row("paseo.database.name", "", "the database")
                + row("paseo.database.owner", "", "the user that migrates the schema; `owner-password` is its password")
                + row("paseo.database.service", "", "the user that serves, with the rights that migrations grant; "
                        + "`service-password` is its password")
                + row("paseo.tls.certificate", "",
                        "a PEM file with which the service serves by https; with `paseo.tls.key`")
                + row("paseo.tls.key", "",
                        "the PEM file of the certificate's key; both are read again when they change")
                + row("server.port", "7600", "the port")
                + row("server.address", "127.0.0.1", "the address that it listens on")
                + row("spring.mail.host", "", "the mail server; none: no mails. Also `.port`, `.username`, `.password`")
                + "\n## Reading kept bytes again\n\n" + head
                + settings(Class.forName("dev.paseo.service.bytes.ScrubSettings"))
                + "\n## Handing on heads of the audit trail\n\n" + head + settings(WitnessSettings.class)
                + "\n## Signing in with OpenID Connect\n\n" + head + settings(ProviderSettings.class));
    }

    @Test
    void theTableOfRolesIsTheOneThatIsEnforced() throws IOException {
        StringBuilder page = new StringBuilder("""
                # Roles and what they may do

                A role is given to an account or a group, everywhere, in one environment, of one component, or both:
                `approver`, `approver in production`, `approver of daylight-api`,
                `approver in production of daylight-api`.
                A token can have fewer of its owner's actions: `paseo token make DESCRIPTION --may ACTION`.

                """);
        page.append("| action | allows to |")
                .append(Arrays.stream(Role.values()).map(Role::word).collect(Collectors.joining(" | ", " ", " |\n")))
                .append("|---|---|").append("---|".repeat(Role.values().length)).append("\n");
        for (Action action : Action.values()) {
            page.append("| `").append(action.word()).append("` | ").append(action.words()).append(" |")
                    .append(Arrays.stream(Role.values()).map(role -> role.allows(action) ? "yes" : "")
                            .collect(Collectors.joining(" | ", " ", " |\n")));
        }
        isAsMade("roles.md", page.toString());
    }

    /** The table of limits without where they are enforced and tested, which stands in docs/limits.md. */
    @Test
    void theLimitsAreThoseThatAreHeld() throws IOException {
        List<String> lines = new ArrayList<>();
        for (String line : Files.readAllLines(TestDatabase.ROOT.resolve("docs/limits.md"))) {
            String[] cells = line.split(" \\| ");
            lines.add(cells.length == 5 ? String.join(" | ", cells[0], grouped(cells[1]), cells[2]) + " |"
                    : line.equals("|---|---|---|---|---|") ? "|---|---|---|"
                            : line.replaceAll(" \\(`\\w+Test`\\)", ""));
        }
        String page = String.join("\n", lines) + "\n";
        int intro = page.indexOf("\n\n") + 2;
        isAsMade("limits.md", page.substring(0, intro) + """
                How much of what comes in from outside is taken, and what is said where it is more. Bytes are bytes,
                lengths are characters (code points) unless it says otherwise.
                """ + page.substring(page.indexOf("\n\n", intro) + 1));
    }

    private static String grouped(String number) {
        return number.matches("\\d+") ? String.format(Locale.ROOT, "%,d", Long.parseLong(number)) : number;
    }

    /** What the sources name, and the page on which a reader finds it. */
    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {
            "environments-file; language/src/main/java/dev/paseo/language/environment; "
                    + "(?s)List\\.of\\((\"[a-z-]+\"(?:,\\s*\"[a-z-]+\")+)\\); 40",
            "variables; agent/src/main/java/dev/paseo/agent/work,agent/src/main/java/dev/paseo/agent/Agent.java,"
                    + "service/src/main/java/dev/paseo/service/stage,service/src/main/java/dev/paseo/service/host; "
                    + "\"(PASEO_[A-Z_]+?)_?\"; 17",
            "conditions; language/src/main/java/dev/paseo/language/condition/Condition.java; "
                    + "SimpleType\\.\\w+, (\"[a-z]+\"(?:, \"[a-z]+\")+)\\); 15",
            "events; service/src/main/java/dev/paseo/service/announcement/Announcements.java; "
                    + "(?s)KINDS = List\\.of\\((.*?)\\); 6",
            "metrics; service/src/main/java; (?:Counter\\.builder|meters\\.gauge)\\(\"([a-z.]+)\"; 4"})
    void whatTheCodeNamesStandsOnItsPage(String page, String sources, String names, int atLeast) throws IOException {
        String text = Files.readString(TestDatabase.ROOT.resolve("docs/reference/" + page + ".md"));
        Set<String> missing = new TreeSet<>();
        Set<String> found = new TreeSet<>();
        for (String source : sources.split(",")) {
            try (Stream<Path> files = Files.walk(TestDatabase.ROOT.resolve(source))) {
                for (Path file : files.filter(each -> each.toString().endsWith(".java")).toList()) {
                    Matcher named = Pattern.compile(names).matcher(Files.readString(file));
                    while (named.find()) {
                        found.addAll(List.of(named.group(1).replaceAll("[\"\\s]", "").split(",")));
                    }
                }
            }
        }
        found.forEach(name -> {
            String said = page.equals("metrics") ? name.replace('.', '_') : name;
            if (!Pattern.compile("[`{ ,.]" + Pattern.quote(said) + "[`,}_ :.]").matcher(text).find()) {
                missing.add(name);
            }
        });
        assertEquals(Set.of(), missing, page + ".md does not say what these are");
        assertTrue(found.size() >= atLeast, () -> "only " + found);
    }
}

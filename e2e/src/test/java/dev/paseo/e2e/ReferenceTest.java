package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.cli.Context;
import dev.paseo.cli.command.Commands;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Role;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
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
    void theTableOfRolesIsTheOneThatIsEnforced() throws IOException {
        StringBuilder page = new StringBuilder("""
                # Roles and what they may do

                A role is given to an account or a group, everywhere, in one environment, of one component, or both:
                `approver`, `approver in production`, `approver of daylight-api`, `approver in production of daylight-api`.
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
}

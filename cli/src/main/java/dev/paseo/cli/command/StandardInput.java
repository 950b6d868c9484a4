package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Failure;
import java.io.Console;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;

/** What is too secret for the command line comes from standard input. */
final class StandardInput {

    private StandardInput() {}

    /** Asked for where somebody sits there; else one line of standard input for each, in their order. */
    static List<String> secrets(Context context, String... prompts) {
        Console console = System.console();
        if (console != null && console.isTerminal()) {
            return Arrays.stream(prompts).map(prompt -> new String(console.readPassword("%s: ", prompt))).toList();
        }
        List<String> lines = all(context).lines().toList();
        if (lines.size() < prompts.length) {
            throw new Failure(Failure.Kind.USAGE, "Standard input should have " + prompts.length
                    + (prompts.length == 1 ? " line: " : " lines: ") + String.join(", then ", prompts));
        }
        return lines;
    }

    static String line(Context context) {
        String text = all(context);
        return text.contains("\n") ? text.substring(0, text.indexOf('\n')) : text;
    }

    static String all(Context context) {
        try {
            return new String(context.in().readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new Failure(Failure.Kind.USAGE, "Standard input cannot be read: " + unreadable.getMessage());
        }
    }
}

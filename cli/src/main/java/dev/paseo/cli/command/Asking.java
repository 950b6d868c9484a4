package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import java.io.Console;
import java.util.Locale;
import java.util.Optional;

/** A question to the person at the terminal. */
final class Asking {

    private Asking() {}

    /** Whether they said yes; empty where nobody can be asked, as in a script. */
    static Optional<Boolean> yes(Context context, String question) {
        Console console = System.console();
        if (console == null || !console.isTerminal()) {
            return Optional.empty();
        }
        context.out().flush();
        String answer = console.readLine("%s [y/N] ", question);
        return Optional.of(answer != null && answer.strip().toLowerCase(Locale.ROOT).startsWith("y"));
    }

    /** What they said, the standard where they said nothing, nothing where they said -; empty where nobody is asked. */
    static Optional<String> text(Context context, String question, String standard) {
        Console console = System.console();
        if (console == null || !console.isTerminal()) {
            return Optional.empty();
        }
        context.out().flush();
        String answer = console.readLine("%s%s ", question,
                standard.isEmpty() ? "" : " [" + standard + "; - for nothing]");
        return Optional.of(answer == null || answer.isBlank() ? standard
                : answer.strip().equals("-") ? "" : answer.strip());
    }
}

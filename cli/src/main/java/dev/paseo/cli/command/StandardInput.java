package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** What is too secret for the command line comes from standard input. */
final class StandardInput {

    private StandardInput() {}

    static String line(Context context) {
        String text = all(context);
        return text.contains("\n") ? text.substring(0, text.indexOf('\n')) : text;
    }

    static String all(Context context) {
        try {
            return new String(context.in().readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new Failure(Failure.Kind.USAGE, "standard input cannot be read: " + unreadable.getMessage());
        }
    }
}

package dev.paseo.cli;

import dev.paseo.cli.command.Commands;
import dev.paseo.cli.output.Plain;
import dev.paseo.cli.service.Failure;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import picocli.CommandLine;

/** The {@code paseo} command. */
public final class Paseo {

    private Paseo() {}

    public static void main(String[] arguments) {
        PrintWriter out = writer(FileDescriptor.out);
        PrintWriter err = writer(FileDescriptor.err);
        // The launcher knows whether standard output is a terminal; Java has no way to ask about it alone.
        Map<String, String> environment = System.getenv();
        boolean terminal = "1".equals(environment.get("PASEO_TERMINAL"));
        int code = run(new Context(out, System.in, environment, terminal), err, arguments);
        out.flush();
        err.flush();
        Runtime.getRuntime().halt(code);
    }

    private static PrintWriter writer(FileDescriptor descriptor) {
        return new PrintWriter(new OutputStreamWriter(new FileOutputStream(descriptor), StandardCharsets.UTF_8), false);
    }

    /** Runs a command; the exit code. */
    public static int run(Context context, PrintWriter errors, String... arguments) {
        PrintWriter err = Plain.writer(errors);
        CommandLine line = Commands.line(context, arguments.length == 0 ? "" : arguments[0]).setOut(context.out())
                .setErr(err).setUsageHelpAutoWidth(true);
        line.setColorScheme(CommandLine.Help.defaultColorScheme(CommandLine.Help.Ansi.OFF));
        line.setExecutionExceptionHandler((failed, command, parsed) -> {
            if (failed instanceof Failure failure) {
                err.println("error: " + failure.getMessage());
                return failure.exitCode();
            }
            err.println("error: The client itself failed; with PASEO_TRACE=1 it prints where");
            if ("1".equals(context.environment("PASEO_TRACE"))) {
                failed.printStackTrace(err);
            }
            return 1;
        });
        if (arguments.length == 0) {
            line.usage(context.out());
            return 0;
        }
        return line.execute(arguments);
    }
}

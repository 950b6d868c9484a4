package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.ClientSettings;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "password", description = {
        "Sets your password, 10 to 200 characters.",
        "It is asked for, or read from standard input: the one before first, then the new one; with a code that an "
                + "administrator gave you, the new one alone. Your sessions end; your tokens stay."},
        footer = {"", "Examples:", "  paseo password", "  paseo password http://127.0.0.1:7600 --code paseo-code_…"})
final class PasswordCommand implements Callable<Integer> {

    @Parameters(arity = "0..1", paramLabel = "URL",
            description = "the service's address, with --code; default: the one you are signed in to")
    private Optional<String> address = Optional.empty();

    @Option(names = "--code", description = "a one-time code of an administrator (paseo account code)")
    private Optional<String> code = Optional.empty();

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    private final Context context;

    PasswordCommand(Context context) {
        this.context = context;
    }

    @Override
    public Integer call() {
        Api api = address
                .map(url -> new Api(new ClientSettings.Target(url.replaceFirst("/+$", ""), Optional.empty()),
                        context.json()))
                .orElseGet(() -> context.api(Optional.empty()));
        if (code.isPresent()) {
            String name = api.put(Api.path("password-by-code"), api.object().put("code", code.get()).put("password",
                    StandardInput.secrets(context, "New password").getFirst())).path("name").asString();
            context.out().println("The password of " + name + " is set. Sign in with: paseo sign-in " + api.address()
                    + " --name " + name);
            return 0;
        }
        List<String> given = StandardInput.secrets(context, "Password now", "New password");
        api.put(Api.path("password"), api.object().put("current", given.get(0)).put("password", given.get(1)));
        context.out().println("Your password is changed; sessions in browsers have ended.");
        return 0;
    }
}

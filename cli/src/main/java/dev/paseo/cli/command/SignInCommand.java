package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.ClientSettings;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "sign-in",
        description = "Signs in to a service and remembers it. The password is asked for, or read from standard input.",
        footer = {"", "Example:", "  paseo sign-in http://127.0.0.1:7600 --name developer"})
final class SignInCommand implements Callable<Integer> {

    @Parameters(paramLabel = "URL", description = "the service's address")
    private String address = "";

    @Option(names = "--name", description = "the account's name; default: the operating system's user")
    private String name = System.getProperty("user.name");

    @Option(names = "--as", paramLabel = "SERVICE", defaultValue = "default",
            description = "remember the service under this name; default: ${DEFAULT-VALUE}")
    private String as = "default";

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    private final Context context;

    SignInCommand(Context context) {
        this.context = context;
    }

    @Override
    public Integer call() {
        String plain = address.replaceFirst("/+$", "");
        Api api = new Api(new ClientSettings.Target(plain, Optional.empty()), context.json());
        String token = api.post(Api.path("tokens"),
                api.object().put("name", name)
                        .put("password", StandardInput.secrets(context, "Password of " + name).getFirst())
                        .put("description", "client on " + hostName()))
                .path("token").asString();
        Optional<String> before = context.settings().remember(as, plain, token);
        context.out().println("Signed in to " + plain + " as " + name + ".");
        String chosen = context.environment("PASEO_SERVICE");
        if (!chosen.isEmpty() && !chosen.equals(as)) {
            context.out()
                    .println("Commands still ask " + chosen + ", as PASEO_SERVICE says; this one: --service " + as);
        } else {
            before.ifPresent(other -> context.out()
                    .println("Commands ask it from now on; the one before: --service " + other));
        }
        return 0;
    }

    private static String hostName() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException nameless) {
            return "this machine";
        }
    }
}

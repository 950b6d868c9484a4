package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import picocli.CommandLine.Command;

/** {@code paseo sign-out}. */
@Command(name = "sign-out",
        description = "Makes the token that this machine has for a service good for nothing, and forgets it.",
        footer = {"", "Example:", "  paseo sign-out"})
final class SignOutCommand extends ServiceCommand {

    SignOutCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        api.delete(Api.path("session"));
        context.settings().forget(api.address());
        context.out().println("Signed out of " + api.address() + ".");
        return 0;
    }
}

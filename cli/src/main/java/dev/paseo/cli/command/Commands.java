package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The tree of commands. */
@Command(name = "paseo", version = "paseo 0.1.0", sortOptions = false,
        description = "Which build is running where, how did it get there, and who said it could?",
        footer = {"", "Exit codes: 0 done, 1 refused or failed, 2 wrong usage, 3 not reachable, 4 not allowed.",
            "Settings: paseo/services.json below the XDG configuration folder; PASEO_SERVICE and PASEO_TOKEN go before it.",
            "", "Example:", "  paseo where"})
public final class Commands {

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    @Option(names = {"-V", "--version"}, versionHelp = true, description = "show the version")
    private boolean version;

    private Commands() {}

    /** A command that only gathers others. */
    @Command
    private static final class Group {
        @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
        private boolean help;
    }

    public static CommandLine line(Context context) {
        CommandLine line = new CommandLine(new Commands());
        line.addSubcommand(new WhereCommand(context));
        line.addSubcommand(new ShowCommand(context));
        line.addSubcommand(new WhyCommand(context));
        line.addSubcommand(new StartCommand(context));
        line.addSubcommand(new WatchCommand(context));
        line.addSubcommand(new PromoteCommand(context));
        line.addSubcommand(new RulingCommand.Approve(context));
        line.addSubcommand(new RulingCommand.Reject(context));
        line.addSubcommand(new CancelCommand(context));
        line.addSubcommand(new FetchCommand(context));
        line.addSubcommand(new CheckCommand(context));
        line.addSubcommand(new SignInCommand(context));
        line.addSubcommand("component", group("Components: register, hook, pushes.", new ComponentCommands.Register(context),
                new ComponentCommands.Hook(context), new ComponentCommands.Pushes(context)));
        line.addSubcommand("environment", group("Environments: load.", new SetUpCommands.LoadEnvironments(context)));
        line.addSubcommand("secret", group("Secrets: set.", new SetUpCommands.SetSecret(context)));
        line.addSubcommand("account", group("Accounts: add.", new SetUpCommands.AddAccount(context)));
        line.addSubcommand("group", group("Groups: join, leave.", new SetUpCommands.JoinGroup(context), new SetUpCommands.LeaveGroup(context)));
        line.addSubcommand("agent", group("Agents: enrol, list.", new SetUpCommands.EnrolAgent(context), new SetUpCommands.ListAgents(context)));
        line.addSubcommand("audit", group("The audit trail: verify, list.", new AuditCommands.Verify(context), new AuditCommands.List(context)));
        return line;
    }

    private static CommandLine group(String description, Object... commands) {
        CommandLine group = new CommandLine(new Group());
        group.getCommandSpec().usageMessage().description(description);
        for (Object command : commands) {
            group.addSubcommand(command);
        }
        return group;
    }
}

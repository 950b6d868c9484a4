package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The tree of commands. */
@Command(name = "paseo", version = "paseo 0.1.0", sortOptions = false,
        description = "Which build is running where, how did it get there, and who said it could?",
        footer = {"", "Exit codes: 0 done, 1 refused or failed, 2 wrong usage, 3 not reachable, 4 not allowed.",
                "Settings: paseo/services.json below the XDG configuration folder; PASEO_SERVICE and PASEO_TOKEN go "
                        + "before it.",
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

    private static Map<String, Supplier<Object>> commands(Context context) {
        Map<String, Supplier<Object>> commands = new LinkedHashMap<>();
        everyDay(commands, context);
        restraintsAndTheRest(commands, context);
        lists(commands, context);
        environments(commands, context);
        settings(commands, context);
        people(commands, context);
        return commands;
    }

    /** What is asked and decided every day. */
    private static void everyDay(Map<String, Supplier<Object>> commands, Context context) {
        commands.put("where", () -> new WhereCommand(context));
        commands.put("show", () -> new ShowCommand(context));
        commands.put("why", () -> new WhyCommand(context));
        commands.put("find", () -> new FindCommand(context));
        commands.put("compare", () -> new CompareCommand(context));
        commands.put("start", () -> new StartCommand(context));
        commands.put("watch", () -> new WatchCommand(context));
        commands.put("promote", () -> new PromoteCommand(context));
        commands.put("approve", () -> new DecisionCommand.Approve(context));
        commands.put("reject", () -> new DecisionCommand.Reject(context));
        commands.put("waiting", () -> new GateCommands.Waiting(context));
        commands.put("tick", () -> new TickCommand(context));
        commands.put("notices", () -> new NoticesCommand(context));
        commands.put("follow", () -> new FollowCommand(context));
        commands.put("ask", () -> group("What others may do and you may not",
                new AskCommands.For(context), new AskCommands.ListAll(context), new AskCommands.Decline(context),
                new AskCommands.Drop(context)));
        commands.put("hand-on", () -> new HandOnCommand(context));
        commands.put("cancel", () -> new CancelCommand(context));
        commands.put("rollback", () -> new WayBackCommands.Rollback(context));
        commands.put("redeploy", () -> new WayBackCommands.Redeploy(context));
        commands.put("repair", () -> new WayBackCommands.Repair(context));
        commands.put("continue", () -> new WayBackCommands.Continue(context));
        commands.put("review", () -> new WayBackCommands.Review(context));
        commands.put("record", () -> new WayBackCommands.Record(context));
    }

    /** What restrains, what is done once more, what comes and goes, and the own machine. */
    private static void restraintsAndTheRest(Map<String, Supplier<Object>> commands, Context context) {
        commands.put("hold", () -> new RestraintCommands.Hold(context));
        commands.put("close", () -> new RestraintCommands.Close(context));
        commands.put("block", () -> new RestraintCommands.Block(context));
        commands.put("history", () -> new HistoryCommand(context));
        commands.put("pace", () -> new PaceCommand(context));
        commands.put("stages", () -> new StagesCommand(context));
        commands.put("shifts", () -> new ShiftsCommand(context));
        commands.put("resume", () -> new OnceMoreCommand.Resume(context));
        commands.put("again", () -> new OnceMoreCommand.Again(context));
        commands.put("retire", () -> new RetireCommands.Retire(context));
        commands.put("bring-back", () -> new RetireCommands.BringBack(context));
        commands.put("publish", () -> new PublishCommand(context));
        commands.put("fetch", () -> new FetchCommand(context));
        commands.put("verify", () -> new VerifyCommand(context));
        commands.put("parts", () -> new PartsCommand(context));
        commands.put("release-record", () -> new ReleaseRecordCommand(context));
        commands.put("release-notes", () -> new ReleaseNotesCommand(context));
        commands.put("statement", () -> new StatementCommand(context));
        commands.put("check", () -> new CheckCommand(context));
        commands.put("draft", () -> new DraftCommand(context));
        commands.put("sign-in", () -> new SignInCommand(context));
        commands.put("sign-out", () -> new SignOutCommand(context));
        commands.put("log", () -> new LogCommand(context));
    }

    /** What there is, and components. */
    private static void lists(Map<String, Supplier<Object>> commands, Context context) {
        commands.put("list",
                () -> group(
                        "What there is, the newest first",
                        new ListCommands.Components(context),
                        new ListCommands.Environments(context), new ListCommands.Runs(context),
                        new ListCommands.Versions(context), new ListCommands.Deployments(context),
                        new ListCommands.Events(context), new RetireCommands.Retired(context)));
        commands.put("piece",
                () -> group("Pieces, which the pipeline files of many components share",
                        new PieceCommands.ListAll(context), new PieceCommands.Users(context),
                        new PieceCommands.Try(context)));
        commands.put("component", () -> group(
                "Components",
                new RegisterCommand(context), new ChangeCommand(context),
                new ComponentCommands.Shut(context), new ComponentCommands.Look(context),
                new ComponentCommands.Badge(context),
                new ComponentCommands.Hook(context), new ComponentCommands.Events(context),
                new ComponentCommands.Links(context), new ComponentCommands.Names(context),
                new ComponentCommands.Labels(context),
                new ComponentCommands.Open(context), new ComponentCommands.PublishToken(context),
                new PieceCommands.InForce(context), new SourceCommands.Save(context),
                new SourceCommands.Pushed(context),
                new SourceCommands.Observe(context),
                new SourceCommands.Stores(context), new SourceCommands.MapHook(context)));
    }

    /** Environments, and what is decided there. */
    private static void environments(Map<String, Supplier<Object>> commands, Context context) {
        commands.put("environment",
                () -> group("Environments",
                        new EnvironmentFileCommands.Load(context), new EnvironmentFileCommands.Place(context),
                        new EnvironmentFileCommands.Edit(context),
                        new GateCommands.Export(context), new GateCommands.Copy(context),
                        new GateCommands.Differences(context),
                        new GateCommands.Rules(context), new GateCommands.Outside(context),
                        new GateCommands.CalendarAddress(context)));
        commands.put("evidence", () -> group("Evidence that is added to sealed versions",
                new EvidenceCommands.Add(context), new EvidenceCommands.SignOff(context),
                new EvidenceCommands.ListAll(context), new EvidenceCommands.Fetch(context)));
        commands.put("set", () -> group("Sets of versions, promoted as one",
                new SetCommands.Make(context), new SetCommands.Promote(context), new SetCommands.Show(context)));
        commands.put("deputy",
                () -> group("Deputies, who decide in another's place for a time",
                        new DeputyCommands.Name(context), new DeputyCommands.ListAll(context),
                        new DeputyCommands.End(context)));
        commands.put("loosening",
                () -> group("Loosenings that wait for a second person",
                        new LooseningCommands.ListAll(context), new LooseningCommands.Show(context),
                        new LooseningCommands.Agree(context), new LooseningCommands.Refuse(context),
                        new LooseningCommands.Withdraw(context)));
        commands.put("service", () -> new ServiceFactsCommand(context));
        commands.put("clock", () -> group("The service's clock", new GateCommands.Forward(context)));
    }

    /** Hosts, previews and what is set for them. */
    private static void settings(Map<String, Supplier<Object>> commands, Context context) {
        commands.put("host", () -> group("Hosts", new RestraintCommands.Hosts(context),
                new RestraintCommands.Maintain(context)));
        commands.put("preview", () -> group("Preview environments",
                new RestraintCommands.Previews(context), new RestraintCommands.RemovePreview(context)));
        commands.put("variable", () -> group("Variables", new RestraintCommands.SetVariable(context),
                new RestraintCommands.Variables(context)));
        commands.put("secret",
                () -> group("Secrets", new SecretCommands.Set(context),
                        new SecretCommands.ListAll(context),
                        new SecretCommands.Grant(context), new SecretCommands.RenewKey(context)));
    }

    /** People, agents, others who are told, and the trail. */
    private static void people(Map<String, Supplier<Object>> commands, Context context) {
        commands.put("account",
                () -> group("Accounts", new AccountCommands.Add(context),
                        new AccountCommands.ListAll(context),
                        new AccountCommands.Change(context), new AccountCommands.Disable(context),
                        new AccountCommands.Enable(context), new AccountCommands.Code(context)));
        commands.put("group", () -> group("Groups", new GroupCommands.ListAll(context),
                new GroupCommands.Change(context), new GroupCommands.Join(context), new GroupCommands.Leave(context)));
        commands.put("token", () -> group("Your tokens", new TokenCommands.Make(context),
                new TokenCommands.ListAll(context), new TokenCommands.Revoke(context)));
        commands.put("password", () -> new PasswordCommand(context));
        commands.put("agent",
                () -> group("Agents", new AgentCommands.Enrol(context),
                        new AgentCommands.Renew(context),
                        new AgentCommands.ListAgents(context), new AgentCommands.Drain(context),
                        new AgentCommands.Return(context)));
        commands.put("receiver",
                () -> group("Receivers of events",
                        new ReceiverCommands.Add(context),
                        new ReceiverCommands.ListReceivers(context), new ReceiverCommands.Messages(context),
                        new ReceiverCommands.Resend(context), new ReceiverCommands.Stop(context)));
        commands.put("audit",
                () -> group("The audit trail",
                        new AuditCommands.List(context), new TrailCommands.Show(context), new ExportCommand(context),
                        new AuditCommands.Verify(context), new TrailCommands.Head(context),
                        new TrailCommands.WitnessList(context), new TrailCommands.Key(context),
                        new TrailCommands.RenewKey(context), new AuditCommands.AcknowledgeRestore(context)));
    }

    /** The commands, or, for a quick start, only the one that is asked for. */
    public static CommandLine line(Context context, String asked) {
        CommandLine line = new CommandLine(new Commands());
        Map<String, Supplier<Object>> commands = commands(context);
        boolean known = commands.containsKey(asked);
        commands.forEach((name, command) -> {
            if (!known || name.equals(asked)) {
                line.addSubcommand(name, command.get());
            }
        });
        return line;
    }

    private static CommandLine group(String of, Object... commands) {
        CommandLine group = new CommandLine(new Group());
        for (Object command : commands) {
            group.addSubcommand(command);
        }
        group.getCommandSpec().usageMessage()
                .description(of + ": " + String.join(", ", group.getSubcommands().keySet()) + ".");
        return group;
    }
}

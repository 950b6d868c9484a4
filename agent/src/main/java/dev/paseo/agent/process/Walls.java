package dev.paseo.agent.process;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * What keeps a step to its own work: namespaces of the kernel, made by bubblewrap, and, where the agent is root, a user
 * of the work's own. What this machine allows is found out once, by making them.
 */
public final class Walls {

    /** Where a walled stage finds its files: always the same place, whatever the agent's folder is called. */
    static final Path INSIDE = Path.of("/run/paseo");
    /** The first of the users that work gets where the agent is root, and how many there are; each work has its own. */
    private static final long FIRST_USER = 400_000;
    private static final long USERS = 100_000;
    /** A folder that only hides another is held in memory: so many bytes it may take. */
    private static final String HIDING_BYTES = "65536";
    private static final String SHARED_MEMORY_BYTES = Long.toString(256L << 20);
    private static final int TRIED_SECONDS = 10;

    /**
     * Runs a script under a limit of processes, or under a lower one that the user has already, and writes the names of
     * what it left running to descriptor 3, before the namespace ends it all.
     */
    private static final String INNER = """
            [ -z "$1" ] || ulimit "$1" "$2" 2>/dev/null
            sh -e "$0" 3>&-
            code=$?
            for each in /proc/[0-9]*; do
                pid=${each#/proc/}
                [ "$pid" = 1 ] || [ "$pid" = $$ ] || { read -r name <"$each/comm" && printf '%s\\n' "$name" >&3; }
            done 2>/dev/null
            exit $code
            """;
    private static final String BARE = "exec sh -e \"$0\" 3>&-";

    /** What kind of work it is. */
    public enum Kind {
        /** It works on its own files, and on what the administrator shares. */
        STAGE,
        /** It works on its own files alone. */
        UNTRUSTED_STAGE,
        /** It changes the host; a trusted version brought it. */
        RECIPE,
        /** It may change its host's folder, and nothing else of the host. */
        UNTRUSTED_RECIPE
    }

    /**
     * What the agent's administrator has said.
     *
     * @param wanted   false: none, by the administrator's word
     * @param shared   folders that stages of trusted branches may read and write beside their own, such as a cache
     * @param readable folders that would be hidden, and that steps may read, such as tools in a home
     * @param network  whether stages reach the network
     * @param sudo     recipes become other users, which no walled process can: they have no walls
     */
    public record WallSettings(boolean wanted, List<Path> shared, List<Path> readable, boolean network, boolean sudo) {

        public static WallSettings usual() {
            return new WallSettings(true, List.of(), List.of(), true, false);
        }
    }

    /**
     * How a step is started, and what it sees where.
     *
     * @param command what the step's script is carried out with
     */
    public record Box(List<String> command, Path workspace, Path artifacts, Optional<Path> home) {}

    private final Path agentFolder;
    private final Path hostFolder;
    private final WallSettings settings;
    private final Optional<String> none;
    private final boolean root;
    private final boolean ownUser;
    /** How this machine's shell is told how many processes there may be; empty where it cannot be. */
    private final String processesOption;

    private Walls(Path agentFolder, Path hostFolder, WallSettings settings, Optional<String> none, boolean root,
            boolean ownUser, String processesOption) {
        this.agentFolder = agentFolder;
        this.hostFolder = hostFolder;
        this.settings = settings;
        this.none = none;
        this.root = root;
        this.ownUser = ownUser;
        this.processesOption = processesOption;
    }

    /** What can be had on this machine. */
    public static Walls find(Path agentFolder, Path hostFolder, WallSettings settings)
            throws IOException, InterruptedException {
        if (!settings.wanted()) {
            return new Walls(agentFolder, hostFolder, settings,
                    Optional.of("the agent was started with --without-walls"), isRoot(), false, "");
        }
        List<String> plain = List.of("bwrap", "--unshare-pid", "--unshare-ipc", "--ro-bind", "/", "/", "--dev", "/dev",
                "--proc", "/proc", "true");
        Optional<String> failed = tried(plain);
        if (failed.isPresent()) {
            return new Walls(agentFolder, hostFolder, settings, failed, isRoot(), false, "");
        }
        boolean ownUser = isRoot()
                && tried(Stream.of(List.of("bwrap", "--unshare-pid", "--cap-drop", "ALL"), keptRights(),
                        List.of("--ro-bind", "/", "/", "--dev", "/dev", "--proc", "/proc"), as(FIRST_USER),
                        List.of("true")).flatMap(List::stream).toList()).isEmpty();
        return new Walls(agentFolder, hostFolder, settings, Optional.empty(), isRoot(), ownUser, processesOption());
    }

    /** POSIX has no option for it: shells have one of two. */
    private static String processesOption() throws InterruptedException {
        for (String option : List.of("-u", "-p")) {
            if (tried(List.of("sh", "-c", "ulimit " + option + " 1000 && [ \"$(ulimit " + option + ")\" = 1000 ]"))
                    .isEmpty()) {
                return option;
            }
        }
        return "";
    }

    private static boolean isRoot() throws IOException {
        return Integer.valueOf(0).equals(Files.getAttribute(Path.of("/proc/self"), "unix:uid"));
    }

    /** Why it does not work; empty where it does. */
    private static Optional<String> tried(List<String> command) throws InterruptedException {
        try {
            Process process = new ProcessBuilder(command).redirectErrorStream(true)
                    .redirectInput(Path.of("/dev/null").toFile()).start();
            if (!process.waitFor(TRIED_SECONDS, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                return Optional.of(command.getFirst() + " does not come to an end");
            }
            String said = new String(process.getInputStream().readNBytes(400), java.nio.charset.StandardCharsets.UTF_8)
                    .strip();
            return process.exitValue() == 0 ? Optional.empty() : Optional
                    .of("bubblewrap does not work here: " + said.lines().findFirst().orElse("it says nothing"));
        } catch (IOException missing) {
            return Optional.of("bubblewrap is not installed");
        }
    }

    /** Whether untrusted steps reach only their own work. */
    public boolean areUp() {
        return none.isEmpty();
    }

    /** Which there are, in words: what is told to the service and at the start. */
    public String words() {
        if (none.isPresent()) {
            return "none: " + none.get();
        }
        List<String> words = new ArrayList<>(List.of("stages: files", "processes", "home"));
        if (ownUser) {
            words.add("user");
        }
        if (!settings.network()) {
            words.add("network");
        }
        StringBuilder told = new StringBuilder(String.join(", ", words));
        if (!settings.shared().isEmpty()) {
            told.append("; trusted stages share ")
                    .append(String.join(", ", settings.shared().stream().map(Path::toString).toList()));
        }
        return told.append("; recipes: ")
                .append(settings.sudo() ? "none (--with-sudo)" : root ? "files, as root" : "files").toString();
    }

    /** The box of one try of a step; {@code script} is its file in the spool. */
    public Box box(Kind kind, Spool spool, Path script, Limits limits) {
        boolean bare = none.isPresent() || kind == Kind.RECIPE && settings.sudo();
        if (bare) {
            return new Box(List.of("sh", "-c", BARE, script.toString()), spool.workspace(), spool.artifacts(),
                    Optional.empty());
        }
        return kind == Kind.RECIPE ? recipe(spool, script) : closed(kind, spool, script, limits);
    }

    /** A recipe changes its host as the agent's user may, but sees nothing of the agent and its other work. */
    private Box recipe(Spool spool, Path script) {
        List<String> command = new ArrayList<>(List.of("bwrap", "--die-with-parent", "--dev-bind", "/", "/"));
        hide(command, agentFolder);
        bindHostFolder(command);
        for (Path own : List.of(spool.workspace(), spool.artifacts(), script)) {
            bind(command, own, own);
        }
        command.addAll(List.of("--chdir", spool.workspace().toString(), "sh", "-c", BARE, script.toString()));
        return new Box(command, spool.workspace(), spool.artifacts(), Optional.empty());
    }

    private Box closed(Kind kind, Spool spool, Path script, Limits limits) {
        List<String> command = new ArrayList<>(List.of("bwrap", "--die-with-parent", "--unshare-pid", "--unshare-ipc"));
        if (!settings.network()) {
            command.add("--unshare-net");
        }
        command.addAll(List.of("--cap-drop", "ALL"));
        boolean asItsUser = hasOwnUser(kind);
        if (asItsUser) {
            command.addAll(keptRights());
        }
        command.addAll(List.of("--ro-bind", "/", "/", "--dev", "/dev", "--size", SHARED_MEMORY_BYTES, "--perms", "1777",
                "--tmpfs", "/dev/shm", "--proc", "/proc"));
        bind(command, spool.temporary(), Path.of("/tmp"));
        hideTheMachine(command);
        settings.readable()
                .forEach(folder -> command.addAll(List.of("--ro-bind", folder.toString(), folder.toString())));
        if (kind == Kind.STAGE) {
            settings.shared().forEach(folder -> bind(command, folder, folder));
        }
        hide(command, agentFolder);
        if (kind == Kind.UNTRUSTED_RECIPE) {
            bindHostFolder(command);
        }
        bindItsOwn(command, spool, script);
        if (asItsUser) {
            command.addAll(as(user(spool)));
        }
        // The kernel's own limit is a little above what is looked at, so that who passes it is told so, and goes no
        // further.
        command.addAll(List.of("sh", "-c", INNER, INSIDE.resolve("script").toString(), processesOption,
                Integer.toString(limits.processes() + limits.processes() / 10 + 10)));
        return new Box(command, INSIDE.resolve("workspace"), INSIDE.resolve("artifacts"),
                Optional.of(INSIDE.resolve("home")));
    }

    /** What runs on the machine, and everybody's home. */
    private static void hideTheMachine(List<String> command) {
        hide(command, Path.of("/run"));
        for (String resolver : List.of("/run/systemd/resolve", "/run/resolvconf", "/run/NetworkManager/resolv.conf")) {
            command.addAll(List.of("--ro-bind-try", resolver, resolver));
        }
        Stream.of(Path.of("/home"), Path.of("/root"), Path.of(System.getProperty("user.home", "/root"))).distinct()
                .filter(home -> home.getNameCount() > 0 && Files.isDirectory(home, LinkOption.NOFOLLOW_LINKS))
                .forEach(home -> hide(command, home));
    }

    private static void bindItsOwn(List<String> command, Spool spool, Path script) {
        command.addAll(List.of("--perms", "0755", "--dir", INSIDE.toString()));
        bind(command, spool.workspace(), INSIDE.resolve("workspace"));
        bind(command, spool.home(), INSIDE.resolve("home"));
        command.addAll(List.of("--ro-bind", spool.artifacts().toString(), INSIDE.resolve("artifacts").toString()));
        command.addAll(List.of("--ro-bind", script.toString(), INSIDE.resolve("script").toString()));
        command.addAll(List.of("--chdir", INSIDE.resolve("workspace").toString()));
    }

    /** What is shared belongs to the agent's user: who uses it is that user, too. */
    private boolean hasOwnUser(Kind kind) {
        return ownUser && (kind == Kind.UNTRUSTED_STAGE || kind == Kind.STAGE && settings.shared().isEmpty());
    }

    private void bindHostFolder(List<String> command) {
        bind(command, hostFolder, hostFolder);
    }

    private static void bind(List<String> command, Path from, Path to) {
        command.addAll(List.of("--bind", from.toString(), to.toString()));
    }

    private static void hide(List<String> command, Path folder) {
        command.addAll(List.of("--size", HIDING_BYTES, "--perms", "0755", "--tmpfs", folder.toString()));
    }

    /** What becoming another user takes; it is given up with it. */
    private static List<String> keptRights() {
        return List.of("--cap-add", "CAP_SETUID", "--cap-add", "CAP_SETGID", "--cap-add", "CAP_SETPCAP");
    }

    private static List<String> as(long user) {
        return List.of("setpriv", "--reuid", Long.toString(user), "--regid", Long.toString(user), "--clear-groups",
                "--inh-caps=-all", "--bounding-set=-all");
    }

    private static long user(Spool spool) {
        return FIRST_USER + spool.work() % USERS;
    }

    /** Makes the work's files its user's own, where it has one. */
    public void own(Kind kind, Spool spool) throws IOException {
        if (!hasOwnUser(kind)) {
            return;
        }
        int user = Math.toIntExact(user(spool));
        for (Path tree : List.of(spool.workspace(), spool.home(), spool.temporary())) {
            try (Stream<Path> paths = Files.walk(tree)) {
                for (Path path : paths.toList()) {
                    Files.setAttribute(path, "unix:uid", user, LinkOption.NOFOLLOW_LINKS);
                    Files.setAttribute(path, "unix:gid", user, LinkOption.NOFOLLOW_LINKS);
                }
            }
        }
    }
}

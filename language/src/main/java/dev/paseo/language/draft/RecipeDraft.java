package dev.paseo.language.draft;

import dev.paseo.language.draft.Built.Form;
import dev.paseo.language.draft.Draft.Repository;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Writes the part {@code deployment}: how what was built comes to a host, is looked at there, and is removed. */
final class RecipeDraft {

    private static final List<String> OWN = List.of("deploy/install.sh", "deploy.sh", "script/deploy",
            "scripts/deploy.sh", "deploy/deploy.sh", "bin/deploy");
    private static final List<String> REMOVING = List.of("deploy/remove.sh", "remove.sh", "script/remove",
            "scripts/remove.sh", "deploy/uninstall.sh");
    private static final Pattern ANSWERED = Pattern.compile("|/[A-Za-z0-9/._~%?=&-]*");
    private static final Pattern PORT = Pattern.compile("[1-9]\\d{0,4}");
    /** Whatever is older than the five newest goes, but never what is being installed. */
    private static final String FEWER = "find . -mindepth 1 -maxdepth 1 -type d ! -name \"$PASEO_VERSION\" "
            + "-printf '%T@ %p\\n' | sort -rn | tail -n +5 | cut -d' ' -f2- | xargs -r rm -rf";

    private final String component;
    private final Repository repository;
    private final Built built;
    private final Answers answers;
    private final List<String> lines = new ArrayList<>();

    RecipeDraft(String component, Repository repository, Built built, Answers answers) {
        this.component = component;
        this.repository = repository;
        this.built = built;
        this.answers = answers;
    }

    /** @param hosts how many the largest environment of the route has */
    Optional<List<String>> lines(int hosts) {
        String artifact = built.artifact().orElse("");
        if (artifact.isEmpty()) {
            return Optional.empty();
        }
        Optional<String> own = OWN.stream().filter(repository::has).findFirst();
        List<String> ways = ways(own.isPresent());
        String way = answers.oneOf("deployed", "How is it brought to a host?", ways, ways.getFirst());
        if (way.equals("none")) {
            return Optional.empty();
        }
        lines.add("artifacts: [" + artifact + "]");
        switch (way) {
            case "script" -> script(own.orElseThrow());
            case "service" -> service(artifact);
            case "archive" -> archive(artifact);
            case "page" -> unpacked(artifact,
                    "# The page is unpacked beside those before it; a link is switched to it.",
                    Optional.empty());
            default -> container();
        }
        if (hosts > 1) {
            lines.add(1, "# One host after the other, so that the others answer meanwhile.");
            lines.add(2, "strategy: {rolling: {batch: 1, pause: 10s}}");
        }
        return Optional.of(lines);
    }

    /** The likeliest first. */
    private List<String> ways(boolean own) {
        List<String> ways = switch (built.form()) {
            case JAR, BINARY -> List.of("service", "none");
            case ARCHIVE -> List.of("archive", "page", "none");
            case PAGE -> List.of("page", "archive", "none");
            case IMAGE -> List.of("container", "none");
        };
        return own ? Stream.concat(Stream.of("script"), ways.stream()).toList() : ways;
    }

    private void script(String path) {
        String folder = path.contains("/") ? path.substring(0, path.indexOf('/')) + "/**" : path;
        Optional<String> removing = REMOVING.stream().filter(repository::has).findFirst();
        lines.add("# " + path + " is here: it brings what lies in $PASEO_ARTIFACTS to its host.");
        lines.add("bring: [" + Stream.concat(Stream.of(folder), removing.stream().filter(
                other -> !folder.endsWith("/**") || !other.startsWith(folder.substring(0, folder.length() - 2))))
                .map(Draft::quoted).collect(java.util.stream.Collectors.joining(", ")) + "]");
        lines.add("on-each-host: [./" + path + "]");
        checks("");
        lines.add(removing.map(other -> "removal: [./" + other + "]").orElse(
                "# removal: [deploy/remove.sh]    # takes it away again: of first deployments that fail, of previews"));
    }

    private String restart() {
        return answers.line("restart", "Which command restarts it on its host? Empty: nothing is restarted",
                "systemctl --user restart " + component);
    }

    private void service(String artifact) {
        boolean jar = built.form() == Form.JAR;
        String file = jar ? component + ".jar" : component;
        String restart = restart();
        lines.add("# The " + (jar ? "jar" : "program") + " lies beside those before it; the link live leads to the one "
                + "that runs. Its service");
        lines.add("# has to start " + (jar ? "java -jar " : "") + "FOLDER/" + component + "/live/" + file
                + ", FOLDER being the host's folder.");
        lines.add("on-each-host:");
        block("cd \"$PASEO_HOST_FOLDER\" && mkdir -p \"" + component + "/$PASEO_VERSION\" && cd " + component,
                // Beside it and then in its place: what runs is not written onto.
                "cp \"$PASEO_ARTIFACTS/" + artifact + "/\"* \"$PASEO_VERSION/new\"",
                jar ? "" : "chmod 755 \"$PASEO_VERSION/new\"",
                "mv \"$PASEO_VERSION/new\" \"$PASEO_VERSION/" + file + "\"",
                "ln -sfn \"$PASEO_VERSION\" live", FEWER);
        ended(restart);
    }

    private void archive(String artifact) {
        unpacked(artifact, "# It is unpacked beside those before it; the link live is switched to it, and it is "
                + "restarted.", Optional.of(restart()));
    }

    private void unpacked(String artifact, String why, Optional<String> restart) {
        lines.add(why);
        lines.add("on-each-host:");
        block("cd \"$PASEO_HOST_FOLDER\" && mkdir -p " + component + " && cd " + component,
                "rm -rf new && mkdir new && tar -xf \"$PASEO_ARTIFACTS/" + artifact + "/\"* -C new",
                "rm -rf \"$PASEO_VERSION\" && mv new \"$PASEO_VERSION\"",
                "ln -sfn \"$PASEO_VERSION\" live", FEWER);
        ended(restart.orElse(""));
    }

    /** Restarting, looking, removing. */
    private void ended(String restart) {
        if (!restart.isEmpty()) {
            lines.add("  - " + Draft.single(restart));
        }
        checks(restart.isEmpty() ? "" : "/");
        lines.add("removal:");
        if (restart.contains("restart")) {
            lines.add("  - " + Draft.single(restart.replaceFirst("\\brestart\\b", "stop")));
        }
        lines.add("  - rm -rf \"$PASEO_HOST_FOLDER/" + component + "\"");
    }

    private void container() {
        String engine = answers.asked("engine").orElse("podman");
        String port = answers.shaped("port", "On which port does it listen, in the image and on its host?", PORT,
                "a port, 1 to 65535", NativeBuilds.port(repository));
        if (Integer.parseInt(port) > 65_535) {
            throw new WrongAnswer("port", "port should be a port, 1 to 65535; got “" + port + "”");
        }
        lines.add("# The image is loaded and run by its digest; the container before it is replaced.");
        lines.add("on-each-host:");
        block("image=$(" + engine + " load -q -i \"$PASEO_ARTIFACTS/image/image.tar\" | sed 's/.*: //')",
                "digest=$(" + engine + " image inspect --format '{{.Id}}' \"$image\")",
                engine + " rm -f " + component + " 2>/dev/null || true",
                engine + " run -d --name " + component + " --restart unless-stopped -p " + port + ":" + port
                        + " \"$digest\"");
        checks("/");
        lines.add("removal: [" + engine + " rm -f " + component + "]");
    }

    private void checks(String standard) {
        String path = answers.shaped("check",
                "Which path of a host's address answers with 200 once it runs? Empty: nothing is checked", ANSWERED,
                "a path that begins with /, or nothing", standard);
        if (path.isEmpty()) {
            lines.add(
                    "# checks: {each-host: [{http: \"{host.url}/health\", within: 30s}]}    # nothing is checked yet");
        } else {
            lines.add("checks:");
            lines.add("  each-host:");
            lines.add("    - {http: \"{host.url}" + path + "\", status: 200, within: 60s}");
        }
    }

    /** A command of several lines. */
    private void block(String... commands) {
        lines.add("  - |");
        Stream.of(commands).filter(command -> !command.isEmpty()).forEach(command -> lines.add("    " + command));
    }
}

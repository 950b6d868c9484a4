package dev.paseo.core.notes;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Notes for an announcement, from the commits between versions, in Markdown (CommonMark). Pure. */
public final class ReleaseNotes {

    private static final Pattern SPECIAL = Pattern.compile("([\\\\`*_{}\\[\\]<>#|~])");
    private static final Pattern MERGE = Pattern.compile("Merge (branch|pull request|remote-tracking branch|tag) .*");
    private static final int SHORT = 7;

    private ReleaseNotes() {}

    /** @param summary the first line of its message */
    public record Commit(String id, String summary) {}

    /**
     * What is new of one component.
     *
     * @param before  the version that was there before
     * @param version the one that is there; empty: none any more
     * @param commits that it has more, the newest first
     * @param lost    commits that it no longer has, the newest first
     * @param more    how many further commits are not told
     */
    public record News(String component, Optional<String> before, Optional<String> version, List<Commit> commits,
            List<Commit> lost, int more) {
        public News {
            commits = List.copyOf(commits);
            lost = List.copyOf(lost);
        }
    }

    /**
     * The notes. Merges are left out, and what several commits say alike is said once.
     *
     * @param title of the whole; not yet escaped
     */
    public static String markdown(String title, List<News> parts) {
        StringBuilder text = new StringBuilder("# ").append(escaped(title)).append("\n");
        if (parts.isEmpty()) {
            text.append("\nNothing has changed.\n");
        }
        parts.forEach(part -> text.append("\n## ").append(escaped(heading(part))).append("\n\n").append(body(part)));
        return text.toString();
    }

    private static String heading(News part) {
        return part.component() + part.version()
                .map(version -> " " + version + part.before().map(before -> ", after " + before).orElse(""))
                .orElseGet(() -> part.before().map(before -> " is no longer there; it was " + before).orElse(""));
    }

    private static String body(News part) {
        List<String> has = lines(part.commits());
        List<String> lacks = lines(part.lost());
        StringBuilder text = new StringBuilder();
        has.forEach(text::append);
        if (part.more() > 0) {
            text.append("- and ").append(part.more()).append(" more\n");
        }
        if (!lacks.isEmpty()) {
            text.append(has.isEmpty() ? "" : "\n").append("No longer in it:\n\n");
            lacks.forEach(text::append);
        }
        return text.isEmpty() ? "No commits of its own.\n" : text.toString();
    }

    private static List<String> lines(List<Commit> commits) {
        Set<String> said = new LinkedHashSet<>();
        return commits.stream().filter(commit -> !MERGE.matcher(commit.summary()).matches())
                .filter(commit -> said.add(commit.summary().strip()))
                .map(commit -> "- " + escaped(commit.summary().strip()) + " ("
                        + commit.id().substring(0, Math.min(SHORT, commit.id().length())) + ")\n")
                .toList();
    }

    /** A text that Markdown shows as it is, on one line. */
    private static String escaped(String text) {
        return SPECIAL.matcher(text.replaceAll("[\\p{Cntrl}\\s]+", " ")).replaceAll("\\\\$1");
    }
}

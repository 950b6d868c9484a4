package dev.paseo.cli.command;

import dev.paseo.core.text.Size;
import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import tools.jackson.databind.JsonNode;

/** What differs between two versions, line by line. */
final class ChangeLines {

    private final Context context;
    private boolean differs;

    ChangeLines(Context context) {
        this.context = context;
    }

    void print(JsonNode comparison) {
        commits(comparison);
        artifacts(comparison.path("artifacts"));
        evidence(comparison.path("evidence"));
        variables(comparison.path("variables"));
        comparison.path("secrets").forEach(secret -> line("secret " + secret.path("name").asString() + "  "
                + revision(secret.path("live")) + " to " + revision(secret.path("proposed"))));
        comparison.path("recipe").forEach(change -> line("recipe " + change.path("what").asString() + "  "
                + change.path("live").asString("–") + " to " + change.path("proposed").asString("–")));
        comparison.path("pieces").forEach(change -> line("piece " + change.path("what").asString() + "  "
                + change.path("live").asString("none") + " to " + change.path("proposed").asString("none")));
        comparison.path("parts").forEach(change -> line("part " + change.path("name").asString() + "  "
                + versions(change.path("live"), "not there") + " to " + versions(change.path("proposed"), "gone")));
        long untold = comparison.path("partCount").asLong() - comparison.path("parts").size();
        if (untold > 0) {
            line("and " + untold + " more parts");
        }
        comparison.path("files").forEach(change -> line("file " + change.path("what").asString() + "  "
                + (change.has("live") ? change.has("proposed") ? "changed" : "gone" : "new")));
    }

    private void commits(JsonNode comparison) {
        comparison.path("commits").forEach(
                commit -> line(ServiceCommand.short8(commit.path("id")) + "  " + commit.path("summary").asString()
                        + context.ink().quiet("  " + commit.path("author").asString())));
        int more = comparison.path("commitCount").asInt() - comparison.path("commits").size();
        if (more > 0) {
            line("and " + more + " commits more");
        }
        comparison.path("lost")
                .forEach(commit -> line(context.ink().need("lacks ") + ServiceCommand.short8(commit.path("id")) + "  "
                        + commit.path("summary").asString()
                        + context.ink().quiet("  " + commit.path("author").asString())));
    }

    private void artifacts(JsonNode artifacts) {
        artifacts.valueStream()
                .filter(artifact -> !artifact.path("digest").equals(artifact.path("liveDigest")))
                .forEach(artifact -> line("artifact " + artifact.path("name").asString() + "  "
                        + bytes(artifact, "liveDigest", "liveSize") + " to " + bytes(artifact, "digest", "size")));
    }

    private static String bytes(JsonNode artifact, String digest, String size) {
        return artifact.has(digest)
                ? ServiceCommand.short8(artifact.path(digest)) + ", " + Size.words(artifact.path(size).asLong())
                : "none";
    }

    private void evidence(JsonNode figures) {
        figures.forEach(figure -> {
            if (!figure.path("live").asString("").equals(figure.path("proposed").asString(""))) {
                String better = figure.has("better")
                        ? figure.path("better").asBoolean() ? ", better" : context.ink().need(", worse") : "";
                line(figure.path("name").asString() + "  " + figure.path("live").asString("not reported") + " to "
                        + figure.path("proposed").asString("not reported") + better);
            }
        });
    }

    private static String versions(JsonNode versions, String none) {
        return versions.isEmpty() ? none : String.join(", ",
                versions.valueStream().map(each -> each.asString().isEmpty() ? "no version" : each.asString())
                        .toList());
    }

    /** Says so where nothing differed. */
    void end() {
        if (!differs) {
            line("nothing");
        }
    }

    private static String revision(JsonNode revision) {
        return revision.isMissingNode() ? "none"
                : "value " + revision.path("number").asString("") + ", set " + Times.exact(revision.path("at"))
                        + (revision.has("by") ? " by " + revision.path("by").asString() : "");
    }

    void variables(JsonNode variables) {
        variables.forEach(variable -> {
            if (!variable.path("live").asString("").equals(variable.path("proposed").asString(""))) {
                line("variable " + variable.path("name").asString() + "  " + variable.path("live").asString("not set")
                        + " to " + variable.path("proposed").asString("not set"));
            }
        });
    }

    void line(String text) {
        differs = true;
        context.out().println("  " + text);
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.core.text.Shortened;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Loosenings that wait until a second person agrees. */
final class LooseningCommands {

    private LooseningCommands() {}

    @Command(name = "list",
            description = "Lists the loosenings that wait for a second person, and the newest that have ended.",
            footer = {"", "Example:", "  paseo loosening list"})
    static final class ListAll extends ServiceCommand {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("loosenings"));
            return print(all, () -> {
                if (all.isEmpty()) {
                    context.out().println(
                            "No loosening waits. An environment asks a second person where its rules have to-loosen.");
                    return;
                }
                Table table = new Table("NUMBER", "STATUS", "WANTED BY", "WHAT", "");
                all.forEach(each -> table.row(context.ink().strong(each.path("id").asString()),
                        each.path("status").asString(), each.path("by").asString(), shortly(each.path("what")),
                        each.path("status").asString().equals("open") ? waits(each)
                                : each.path("ending").asString("")));
                table.print(context.out(), context.ink());
            });
        }
    }

    private static final int SHORT = 72;

    private static String shortly(JsonNode what) {
        String first = what.path(0).asString();
        return (Shortened.to(first, SHORT)) + (what.size() > 1 ? " and " + (what.size() - 1) + " more" : "");
    }

    private static String waits(JsonNode loosening) {
        return loosening.path("agreed").asBoolean() ? "is agreed to, and carried out now"
                : "waits for " + (loosening.path("people").isEmpty() ? "nobody: none of those who are asked may agree"
                        : loosening.path("people").valueStream().map(JsonNode::asString)
                                .collect(Collectors.joining(" or ")));
    }

    /** What all others say of one. */
    abstract static class OfOne extends ServiceCommand {
        @Parameters(paramLabel = "NUMBER", description = "of the loosening")
        private long id;

        OfOne(Context context) {
            super(context);
        }

        JsonNode loosening() {
            return api().get(Api.path("loosenings", Long.toString(id)));
        }

        String at(String more) {
            return Api.path("loosenings", Long.toString(id), more);
        }

        int say(boolean yes, String comment) {
            JsonNode seen = loosening();
            JsonNode now = api().post(at("words"), api().object().put("yes", yes).put("comment", comment).put("subject",
                    seen.path("subject").asString()));
            return print(now, () -> show(now));
        }

        void show(JsonNode loosening) {
            context.out().println(context.ink().strong("Loosening " + loosening.path("id").asString()) + ", wanted by "
                    + loosening.path("by").asString() + " at " + Times.zoned(loosening.path("at")));
            loosening.path("what").forEach(what -> context.out().println("  " + what.asString()));
            loosening.path("words").forEach(word -> context.out().println(word.path("by").asString()
                    + (word.path("yes").asBoolean() ? " agrees" : " refuses")
                    + (word.path("comment").asString("").isEmpty() ? "" : ": " + word.path("comment").asString())));
            context.out()
                    .println(loosening.path("status").asString().equals("open")
                            ? "It " + waits(loosening)
                                    + (loosening.path("agreed").asBoolean() ? ""
                                            : ", until " + Times.zoned(loosening.path("until")))
                                    + "."
                            : loosening.path("status").asString() + ": " + loosening.path("ending").asString(""));
        }
    }

    @Command(name = "show", description = "Shows all that a loosening would change, and who said what about it.",
            footer = {"", "Examples:", "  paseo loosening show 3", "  paseo loosening show 3 --text"})
    static final class Show extends OfOne {
        @Option(names = "--text", description = "also the whole environments file that would be loaded")
        private boolean text;

        Show(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode loosening = loosening();
            return print(loosening, () -> {
                show(loosening);
                if (text) {
                    context.out().println();
                    context.out().print(loosening.path("text").asString("It is no file."));
                }
            });
        }
    }

    @Command(name = "agree",
            description = "Agrees to a loosening: when nobody else is asked it is carried out, exactly as it is shown.",
            footer = {"", "Example:", "  paseo loosening agree 3 --comment \"Meant for the summer.\""})
    static final class Agree extends OfOne {
        @Option(names = "--comment", paramLabel = "TEXT", description = "at most 2000 characters")
        private Optional<String> comment = Optional.empty();

        Agree(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            return say(true, comment.orElse(""));
        }
    }

    @Command(name = "refuse", description = "Refuses a loosening: nothing of it is changed.",
            footer = {"", "Example:", "  paseo loosening refuse 3 --comment \"The gate stays.\""})
    static final class Refuse extends OfOne {
        @Option(names = "--comment", required = true, paramLabel = "TEXT", description = "why; at most 2000 characters")
        private String comment = "";

        Refuse(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            return say(false, comment);
        }
    }

    @Command(name = "withdraw", description = "Takes back a loosening that you want.",
            footer = {"", "Example:", "  paseo loosening withdraw 3"})
    static final class Withdraw extends OfOne {
        Withdraw(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode now = api().post(at("withdrawal"), api().object());
            return print(now, () -> show(now));
        }
    }
}

package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Commands that try a run once more. */
abstract class OnceMoreCommand extends ServiceCommand {

    @Parameters(paramLabel = "COMPONENT#RUN")
    private String run = "";

    OnceMoreCommand(Context context) {
        super(context);
    }

    JsonNode post(String what) {
        if (!(Subject.of(List.of(run)) instanceof Subject.Run(String component, String number))) {
            throw new Failure(Failure.Kind.USAGE, "“" + run + "” should be COMPONENT#RUN, such as daylight-api#41");
        }
        Api api = api();
        return api.post(Api.path("runs", component, number, what), api.object());
    }

    String run() {
        return run;
    }

    @Command(name = "resume",
            description = "Goes on with a run from what failed; what passed stands, and attempts are kept.",
            footer = {"", "Example:", "  paseo resume daylight-api#4"})
    static final class Resume extends OnceMoreCommand {
        Resume(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode after = post("resumption");
            return print(after,
                    () -> context.out()
                            .println(run() + " goes on from what failed; it is "
                                    + context.ink().state(after.path("status").asString())
                                    + ". Watch it: paseo watch " + run()));
        }
    }

    @Command(name = "again", description = "Runs the same commit once more, as a run of its own with the same answers.",
            footer = {"", "Example:", "  paseo again daylight-api#4"})
    static final class Again extends OnceMoreCommand {
        Again(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode after = post("repetition");
            String name = after.path("component").asString() + "#" + after.path("number").asString("");
            return print(after, () -> context.out()
                    .println("Started " + name + ", which does what " + run() + " did. Watch it: paseo watch " + name));
        }
    }
}

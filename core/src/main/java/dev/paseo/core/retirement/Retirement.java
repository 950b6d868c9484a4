package dev.paseo.core.retirement;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/**
 * What hinders that something is retired, and what follows from it, in sentences. Its history stays in any case. Pure.
 */
public final class Retirement {

    private Retirement() {}

    /**
     * Something that is live somewhere.
     *
     * @param removable whether its recipe says how it is removed
     */
    public record Live(String component, String environment, String version, List<String> hosts, boolean removable) {

        private String words() {
            return component + " " + version;
        }

        private String where() {
            return String.join(", ", hosts) + " in " + environment;
        }
    }

    /**
     * What is known of what is to be retired.
     *
     * @param underWay what is under way with it, such as {@code sun-model#7 is running}
     * @param needs    what cannot be without it, such as {@code daylight-api has it in production}
     * @param live     what is live of it, or there
     * @param ends     what will no longer happen, such as {@code path-board no longer starts upon it}
     */
    public record Facts(List<String> underWay, List<String> needs, List<Live> live, List<String> ends) {}

    /** Why it cannot be retired now; empty where it can. */
    public static List<String> hinders(Facts facts, boolean remove) {
        return Stream
                .of(facts.underWay().stream().map(each -> each + ": wait for it, or cancel it"), facts.needs().stream(),
                        facts.live().stream().filter(live -> remove && !live.removable())
                                .map(live -> "the recipe of " + live.words()
                                        + " has no removal: it stays on " + live.where()
                                        + " until somebody takes it away by hand; retire it without removing"))
                .flatMap(each -> each).toList();
    }

    /** What follows from it. */
    public static List<String> follows(Facts facts, boolean remove) {
        List<String> follows = new ArrayList<>();
        facts.live().forEach(live -> follows.add(remove ? live.words() + " is removed from " + live.where()
                : live.words() + " keeps running on " + live.where()
                        + (live.removable() ? "; it can be removed with it" : "; its recipe has no removal")));
        follows.addAll(facts.ends());
        return follows;
    }
}

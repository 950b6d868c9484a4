package dev.paseo.core.deployment;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Which version a rollback goes to. */
public final class RollbackTarget {

    private RollbackTarget() {}

    /**
     * A deployment that was live at a place once, or still is.
     *
     * @param replaced the deployment that was live before it, if any
     * @param undone   it was taken back after it had gone live
     * @param line     of its version
     * @param order    its version's position in that line
     */
    public record Past(long deployment, String version, Kind kind, Optional<Long> replaced, boolean undone,
            boolean blocked, long line, long order) {}

    /**
     * A version that somebody wants to go back to.
     *
     * @param wasLive whether it was live at the place before
     * @param barred  the version with which an irreversible change came, where that lies between
     */
    public record Wanted(String live, String target, String environment, boolean wasLive, Optional<String> barred) {}

    /** Why it is not gone back to, as a sentence; empty where it can be. */
    public static Optional<String> refusal(Wanted wanted) {
        if (wanted.target().equals(wanted.live())) {
            return Optional.of(wanted.target() + " is what is live there; to deploy it again, redeploy");
        }
        if (!wanted.wasLive()) {
            return Optional.of(wanted.target() + " was never live in " + wanted.environment()
                    + ": that is no rollback but a promotion");
        }
        return wanted.barred()
                .map(change -> "there is no way back from " + wanted.live() + " to " + wanted.target()
                        + ": an irreversible change came with "
                        + change + "; deploy a version with a fix to " + wanted.environment());
    }

    /**
     * The last version that was live there before and is neither blocked, undone, barred nor itself rolled back from.
     *
     * @param past what was live there, the newest first
     * @param live the version that is live there, which after an undo is not the newest
     * @param bar  what the live version's recipe says may not be gone back behind
     */
    public static Optional<Past> choose(List<Past> past, String live, Optional<NoWayBack> bar) {
        Set<String> out = new HashSet<>(Set.of(live));
        Set<Long> leftByRollback = new HashSet<>();
        for (Past each : past) {
            if (each.undone() || leftByRollback.contains(each.deployment())) {
                out.add(each.version());
            } else if (!each.blocked() && !out.contains(each.version())
                    && bar.filter(no -> no.bars(each.line(), each.order())).isEmpty()) {
                return Optional.of(each);
            }
            if (each.kind() == Kind.ROLLBACK) {
                each.replaced().ifPresent(leftByRollback::add);
            }
        }
        return Optional.empty();
    }
}

package dev.paseo.core.deployment;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;

/**
 * How a set of versions is promoted as one: member after member, each when the one before it is live; and where one
 * does not come to be live, or to stay so, what was live of the others is undone, newest first. One that somebody has
 * replaced meanwhile was live, and is left alone. Pure.
 */
public final class SetCourse {

    private SetCourse() {}

    /** How the set's promotion stands. */
    public enum Status {
        WAITING, DEPLOYING, LIVE, UNDOING, UNDONE, STOPPED, REJECTED, FAILED;

        /** Whether nothing more is done for it, unless one that is live loses a member. */
        public boolean ended() {
            return this != WAITING && this != DEPLOYING && this != UNDOING;
        }

        /** Whether it did not come to be live, or is no more. */
        public boolean fell() {
            return this != LIVE && (ended() || this == UNDOING);
        }
    }

    /** What is to be done next, if anything, and how it stands. {@code member} counts from 0. */
    public record Next(Status status, Optional<Act> act, int member) {}

    public enum Act { REQUEST, UNDO }

    /** @param members how each member's deployment stands, in order; empty where it was not requested yet */
    public static Next next(List<Optional<DeploymentStatus>> members) {
        List<DeploymentStatus> known = members.stream().flatMap(Optional::stream).toList();
        boolean broken = known.stream().anyMatch(SetCourse::ended);
        if (broken) {
            return back(members, known);
        }
        for (int at = 0; at < members.size(); at++) {
            if (members.get(at).isEmpty()) {
                return new Next(at == 0 ? Status.WAITING : Status.DEPLOYING, Optional.of(Act.REQUEST), at);
            }
            if (members.get(at).get() != DeploymentStatus.LIVE && members.get(at).get() != DeploymentStatus.REPLACED) {
                return new Next(at == 0 && members.get(at).get().ahead() ? Status.WAITING : Status.DEPLOYING,
                        Optional.empty(), at);
            }
        }
        return new Next(Status.LIVE, Optional.empty(), members.size());
    }

    /**
     * The member that did not come to be live, or to stay so: the last of those that ended, since the others go back
     * after it.
     *
     * @return its place, from 0; empty where none ended
     */
    public static OptionalInt culprit(List<Optional<DeploymentStatus>> members) {
        return IntStream.range(0, members.size()).filter(at -> members.get(at).filter(SetCourse::ended).isPresent())
                .reduce((earlier, later) -> later);
    }

    private static boolean ended(DeploymentStatus status) {
        return switch (status) {
            case UNDOING, UNDONE, REMOVED, STOPPED, FAILED, REJECTED, EXPIRED, WITHDRAWN, OVERTAKEN -> true;
            case WAITING, QUEUED, DEPLOYING, CHECKING, LIVE, REPLACED -> false;
        };
    }

    private static Next back(List<Optional<DeploymentStatus>> members, List<DeploymentStatus> known) {
        for (int at = members.size() - 1; at >= 0; at--) {
            Optional<DeploymentStatus> status = members.get(at);
            if (status.filter(each -> each.active()).isPresent() && status.get() != DeploymentStatus.UNDOING
                    || status.filter(DeploymentStatus::ahead).isPresent()
                    || status.filter(each -> each == DeploymentStatus.LIVE).isPresent()) {
                return new Next(Status.UNDOING, Optional.of(Act.UNDO), at);
            }
            if (status.filter(each -> each == DeploymentStatus.UNDOING).isPresent()) {
                return new Next(Status.UNDOING, Optional.empty(), at);
            }
        }
        if (known.contains(DeploymentStatus.STOPPED)) {
            return new Next(Status.STOPPED, Optional.empty(), 0);
        }
        boolean decided = known.stream()
                .anyMatch(each -> each == DeploymentStatus.REJECTED || each == DeploymentStatus.EXPIRED
                        || each == DeploymentStatus.WITHDRAWN || each == DeploymentStatus.OVERTAKEN);
        boolean changed = known.contains(DeploymentStatus.UNDONE);
        return new Next(changed ? Status.UNDONE : decided ? Status.REJECTED : Status.FAILED, Optional.empty(), 0);
    }
}

package dev.paseo.core.deployment;

/** How far one part of a deployment's plan is. BROKEN: it went wrong there; LEFT: it was not done, and will not be. */
public enum Standing {
    DONE, NOW, AHEAD, BROKEN, LEFT;

    /** @param part the part's position in the plan, from 0 */
    public static Standing of(DeploymentState deployment, int part) {
        Course course = deployment.course();
        if (course.unsettled().filter(broken -> part >= broken && part <= course.settling()).isPresent()) {
            return course.unsettled().get() == part ? BROKEN : LEFT;
        }
        if (part < course.at()) {
            return DONE;
        }
        return switch (deployment.status()) {
            case WAITING, QUEUED -> AHEAD;
            case DEPLOYING, CHECKING, LIVE -> part == course.at() ? NOW : AHEAD;
            case UNDOING, UNDONE, STOPPED, FAILED -> part == course.at() ? BROKEN : LEFT;
            case REPLACED, REMOVED, REJECTED, EXPIRED, WITHDRAWN, OVERTAKEN -> LEFT;
        };
    }
}

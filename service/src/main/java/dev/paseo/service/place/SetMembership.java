package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentStatus;
import java.util.List;

/** What a place asks of sets, and tells them; they stand above it. */
public interface SetMembership {

    /** The versions of a promotion's set, in the order in which they are deployed. */
    List<Long> members(long promotion);

    /** A deployment is one of a promotion's. */
    void belongs(long deployment, long promotion);

    /** What each member was when the gate opened, as JSON by component. */
    void approved(long promotion, String subjects);

    /** Something happened to a member: what is next is looked at once that has been committed. */
    void lookAgain(long promotion, long deployment, DeploymentStatus status);
}

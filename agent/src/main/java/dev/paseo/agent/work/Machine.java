package dev.paseo.agent.work;

import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Walls;
import dev.paseo.api.agent.Assignment;
import java.util.Map;

/**
 * What this machine has for all work.
 *
 * @param variables PATH, HOME and the like, and PASEO_HOST_FOLDER
 */
public record Machine(Map<String, String> variables, Sources sources, Walls walls, Limits limits) {

    /** The service gives such work only to agents that said they can hold it; this is the agent's own look. */
    void refuseUntrusted(Assignment assignment) {
        if (!assignment.untrusted()) {
            return;
        }
        if (assignment.place().flatMap(Assignment.OfPlace::ssh).isPresent()) {
            throw new CannotGoOn(
                    "work of a branch that is not trusted is not carried out over SSH: the host's account has no "
                            + "walls");
        }
        if (!walls.areUp()) {
            throw new CannotGoOn("work of a branch that is not trusted is not carried out by this agent; its walls: "
                    + walls.words());
        }
    }
}

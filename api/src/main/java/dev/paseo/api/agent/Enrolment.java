package dev.paseo.api.agent;

/**
 * An agent's first request. The agent makes its secret itself and keeps it before it asks, so that it can ask again
 * when the answer was lost: the same token with the same secret is taken again.
 *
 * @param token  the one-time token that an operator got for it
 * @param secret what the agent signs in with from now on, at least 40 characters
 */
public record Enrolment(String token, String secret) {

    /** The answer: the name assigned to the agent. */
    public record Enrolled(String name) {}
}

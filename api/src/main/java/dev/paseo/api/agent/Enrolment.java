package dev.paseo.api.agent;

/** An agent's first request: the one-time token that an operator got for it. */
public record Enrolment(String token) {

    /** The answer: the name assigned to the agent, and the secret that it signs in with from now on. */
    public record Enrolled(String name, String secret) {}
}

package dev.paseo.service.engine;

/**
 * Carries out one kind of effect. It may be called more than once for the same effect and must then change nothing
 * more.
 */
public interface EffectHandler {

    String kind();

    /** Does it; an exception means again, later. */
    void perform(String body);

    /** Its deadline has passed: an event back into the decision. */
    void gaveUp(String body, String error);
}

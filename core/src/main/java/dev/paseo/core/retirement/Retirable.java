package dev.paseo.core.retirement;

/** What can be taken out of use. */
public enum Retirable {
    COMPONENT,
    PLACE,
    HOST,
    AGENT,
    ENVIRONMENT,
    PREVIEW_TEMPLATE
}

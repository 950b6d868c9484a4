package dev.paseo.core.find;

/** What was found. */
public enum Thing {
    COMPONENT, ENVIRONMENT, VERSION, RUN, DEPLOYMENT, COMMIT, ARTIFACT, PACKAGE, ACCOUNT
}

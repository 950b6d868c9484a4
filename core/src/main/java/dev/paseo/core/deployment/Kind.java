package dev.paseo.core.deployment;

/** The kinds of deployment. */
public enum Kind { PROMOTION, REDEPLOY, ROLLBACK, PREVIEW }

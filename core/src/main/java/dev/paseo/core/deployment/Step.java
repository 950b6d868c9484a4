package dev.paseo.core.deployment;

import java.util.List;

/** A deployment after something happened to it, and what follows. */
record Step(DeploymentState deployment, List<Consequence> effects) {}

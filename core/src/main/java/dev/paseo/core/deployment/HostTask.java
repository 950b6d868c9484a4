package dev.paseo.core.deployment;

/** What an agent does for a deployment on its host. */
public enum HostTask { INSTALL, CHECK, UNDO, REMOVE }

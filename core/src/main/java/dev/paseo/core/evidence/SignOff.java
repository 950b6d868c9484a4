package dev.paseo.core.evidence;

/**
 * What somebody says about a version.
 *
 * @param name whose word it is; they need no account
 */
public record SignOff(String name, String words) {}

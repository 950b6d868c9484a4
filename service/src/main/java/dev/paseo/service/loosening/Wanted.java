package dev.paseo.service.loosening;

import java.util.List;
import java.util.Map;

/**
 * A loosening that somebody wants.
 *
 * @param kind  which {@link Agreements.Carrier} carries it out
 * @param what  all that it changes, as sentences
 * @param body  what is carried out, as its carrier reads it
 * @param asked groups and persons of whom one agrees, by environment
 */
public record Wanted(String kind, List<String> what, String body, Map<String, List<String>> asked) {}

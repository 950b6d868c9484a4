package dev.paseo.service.arrival;

import java.util.Locale;

/** The names of artifacts that arrive as files. */
final class ArtifactNames {

    private ArtifactNames() {}

    /** The file's name without the version and what follows: {@code berth-planner-2.3.0.tgz} is {@code berth-planner}. */
    static String of(String fileName, String number) {
        int at = fileName.indexOf(number);
        String stem = at > 0 ? fileName.substring(0, at) : fileName.replaceFirst("\\.(tar\\.)?[A-Za-z0-9]+$", "");
        String name = stem.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        return name.isEmpty() ? "file" : name.substring(0, Math.min(63, name.length()));
    }
}

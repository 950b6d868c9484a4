package dev.paseo.service.run;

/** A file that a stage takes from a version of another component, and why that version. */
public record Taken(String stage, String component, String version, String artifact, String fileName, String digest,
        long size, String intoFolder, String because) {}

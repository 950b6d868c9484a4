package dev.paseo.service.pipeline;

import java.time.Instant;

/** A text of a pipeline file, and the commit at which it was seen. */
public record SeenText(String commitId, String text, int problems, Instant readAt) {}

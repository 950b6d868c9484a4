package dev.paseo.language;

/**
 * Where something comes from that does not stand in the text of a file itself.
 *
 * @param line   of the file, from 1: what brought it there
 * @param column of the file, from 1
 * @param words  where it stands, as in "line 12 of java-service, park-pieces 2.1.3"
 */
public record Origin(int line, int column, String words) {}

package dev.paseo.language.piece;

/**
 * A piece that a file asks for and that was not found.
 *
 * @param named  the name by which the file names the component whose piece it is
 * @param wanted which version it asks for
 * @param why    as a sentence's end
 */
public record Missing(String piece, String named, String wanted, String why) {}

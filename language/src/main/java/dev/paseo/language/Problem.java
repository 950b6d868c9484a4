package dev.paseo.language;

/**
 * Something wrong in a file.
 *
 * @param line    counts from 1
 * @param column  counts from 1
 * @param path    where in the document, such as {@code stages.compile.steps[0]}; empty for the document itself
 * @param message what is wrong and what would be right, as a sentence without a full stop
 */
public record Problem(int line, int column, String path, String message) implements Comparable<Problem> {

    /** The same, at the same place, with a path that begins above it. */
    public Problem below(String above) {
        return new Problem(line, column, above + path, message);
    }

    @Override
    public int compareTo(Problem other) {
        return line != other.line ? Integer.compare(line, other.line) : Integer.compare(column, other.column);
    }

    @Override
    public String toString() {
        return line + ":" + column + " " + (path.isEmpty() ? "" : path + ": ") + message;
    }
}

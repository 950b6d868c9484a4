package dev.paseo.api.agent;

/**
 * One line of a log. On the wire and in the store a line is {@code MILLIS STEP TEXT}, with a line feed at its end.
 *
 * @param millis when it was read, in milliseconds since 1970-01-01T00:00Z
 * @param step   the position of its step, from 1; 0 for the agent's own words
 */
public record LogLine(long millis, int step, String text) {

    public String encode() {
        return millis + " " + step + " " + text + "\n";
    }

    public static LogLine decode(String line) {
        int first = line.indexOf(' ');
        int second = line.indexOf(' ', first + 1);
        if (first < 1 || second < 0) {
            throw new IllegalArgumentException("not a log line: '" + line + "'");
        }
        return new LogLine(Long.parseLong(line.substring(0, first)),
                Integer.parseInt(line.substring(first + 1, second)),
                line.substring(second + 1));
    }
}

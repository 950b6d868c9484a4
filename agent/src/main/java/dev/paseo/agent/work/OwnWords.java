package dev.paseo.agent.work;

import dev.paseo.agent.process.Spool;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.StandardOpenOption;

/** What the agent itself says of a piece of work, before its steps and after them, in the work's log. */
final class OwnWords {

    private final Spool spool;
    private final StringBuilder after = new StringBuilder();

    OwnWords(Spool spool) {
        this.spool = spool;
    }

    /** Where what there is to say after the steps is gathered. */
    StringBuilder after() {
        return after;
    }

    /** A line for after the steps; kept with the next {@link #say()}. */
    void add(String line) {
        after.append(line).append('\n');
    }

    /** Keeps all that there is to say after the steps. */
    void say() throws IOException {
        if (!after.isEmpty()) {
            write(false, after.toString().strip());
        }
    }

    /** Keeps a last word with what was said so far. */
    void say(String last) throws IOException {
        write(false, after + last);
    }

    /** Keeps what there is to say before the steps. */
    void sayBefore(String words) throws IOException {
        write(true, words);
    }

    private void write(boolean before, String words) throws IOException {
        Files.writeString(spool.words(before), words + "\n", StandardOpenOption.CREATE,
                StandardOpenOption.TRUNCATE_EXISTING);
    }
}

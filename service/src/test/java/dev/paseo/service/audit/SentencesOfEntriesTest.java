package dev.paseo.service.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.access.AskedAct;
import dev.paseo.core.audit.Sentences;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostHealth;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.SetCourse;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.text.Word;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Whatever the service writes into the trail can be said as a sentence. */
class SentencesOfEntriesTest {

    private static final Pattern ENTRY = Pattern.compile("Entry\\s*\\.of\\([^;]*?,\\s*([^;]*?\"[^;]*)", Pattern.DOTALL);
    private static final Pattern ACTION = Pattern
            .compile("^[^\"]*?(?:\\? )?\"([a-z][a-z' ]+)\"(?:\\s*:\\s*\"([a-z' ]+)\")?,");

    private static Stream<String> actionsOf(Path source) {
        try {
            return ENTRY.matcher(Files.readString(source)).results()
                    .flatMap(entry -> ACTION.matcher(entry.group(1)).results())
                    .flatMap(action -> Stream.of(action.group(1), action.group(2))).filter(word -> word != null);
        } catch (IOException unread) {
            throw new IllegalStateException(unread);
        }
    }

    private static Set<String> written() throws IOException {
        try (Stream<Path> sources = Files.walk(Path.of("src/main/java"))) {
            return new TreeSet<>(sources.filter(path -> path.toString().endsWith(".java"))
                    .flatMap(SentencesOfEntriesTest::actionsOf).toList());
        }
    }

    private static <E extends Enum<E>> Stream<String> each(Class<E> type, String before, String after) {
        return Arrays.stream(type.getEnumConstants()).map(each -> before + Word.of(each) + after);
    }

    @Test
    void eachActionThatStandsInTheCodeHasASentence() throws IOException {
        Set<String> written = written();
        assertTrue(written.size() > 70, "they are found: " + written);
        written.removeAll(Sentences.actions());
        assertEquals(Set.of(), written);
    }

    @Test
    void eachActionThatIsPutTogetherHasASentence() {
        List<String> all = Stream.of(each(DeploymentStatus.class, "deployment ", ""), each(RunStatus.class, "run ", ""),
                each(SetCourse.Status.class, "set ", ""), each(Kind.class, "", " requested"),
                each(AskedAct.class, "asked to ", ""),
                Arrays.stream(HostHealth.Change.values()).map(HostHealth.Change::words)).flatMap(words -> words)
                .toList();
        assertEquals(List.of(), all.stream().filter(action -> !Sentences.actions().contains(action)).toList());
    }
}

package dev.paseo.language.draft;

import dev.paseo.language.Document;
import dev.paseo.language.Value;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.snakeyaml.engine.v2.exceptions.Mark;

/** Another component's pipeline file as the beginning of one: its name changed, and told where it still stands. */
public final class LikeAnother {

    private LikeAnother() {}

    /**
     * The text with the component's name in place of the other's; unchanged where it cannot be read.
     *
     * @param from the component whose text it is
     * @param to   the one that is to have it
     */
    public static String of(String text, String from, String to) {
        Optional<Value> named = new Document(text).root().filter(Value::isMap)
                .map(root -> root.entries().get("component"));
        if (named.isEmpty()) {
            return text;
        }
        int start = named.get().node().getStartMark().map(Mark::getIndex).orElse(0);
        int end = named.get().node().getEndMark().map(Mark::getIndex).orElse(0);
        String renamed = text.substring(0, start) + to + text.substring(end);
        List<Integer> lines = lines(renamed, from);
        String head = "# Begun as that of " + from + "."
                + (lines.isEmpty() ? "" : " It is still named in line" + (lines.size() == 1 ? " " : "s ")
                        + String.join(", ", lines.stream().map(String::valueOf).toList()) + ".")
                + "\n";
        return head + renamed;
    }

    /** The lines, counted with the one that is put before them, in which a name still stands. */
    private static List<Integer> lines(String text, String name) {
        Pattern word = Pattern.compile("(?<![A-Za-z0-9-])" + Pattern.quote(name) + "(?![A-Za-z0-9-])");
        List<String> lines = text.lines().toList();
        return IntStream.range(0, lines.size()).filter(at -> word.matcher(lines.get(at)).find()).map(at -> at + 2)
                .boxed().toList();
    }
}

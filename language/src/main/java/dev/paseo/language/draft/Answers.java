package dev.paseo.language.draft;

import dev.paseo.language.NearestName;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Asks, and takes what was answered or else what is likely. */
final class Answers {

    /** One line, as it may stand in a file. */
    private static final Pattern LINE = Pattern.compile("[^\\p{Cc}\\u2028\\u2029]{0,200}");

    private final Map<String, String> given;
    private final List<Question> asked = new ArrayList<>();

    Answers(Map<String, String> given) {
        this.given = given;
    }

    String line(String name, String words, String standard) {
        return shaped(name, words, LINE, "one line of at most 200 characters", standard);
    }

    String oneOf(String name, String words, List<String> of, String standard) {
        String answer = given.getOrDefault(name, standard);
        if (!of.contains(answer)) {
            throw new WrongAnswer(name, name + " should be one of " + String.join(", ", of) + "; got “" + answer + "”"
                    + NearestName.of(answer, of).map(near -> "; did you mean " + near + "?").orElse(""));
        }
        asked.add(new Question(name, words, of, standard, answer));
        return answer;
    }

    /** @param form what an answer looks like, in words */
    String shaped(String name, String words, Pattern shape, String form, String standard) {
        String answer = given.getOrDefault(name, standard).strip();
        if (!shape.matcher(answer).matches()) {
            throw new WrongAnswer(name, name + " should be " + form + "; got “" + answer + "”");
        }
        asked.add(new Question(name, words, List.of(), standard, answer));
        return answer;
    }

    /** What was answered before. */
    Optional<String> asked(String name) {
        return asked.stream().filter(question -> question.name().equals(name)).map(Question::answer).findFirst();
    }

    /** What was asked; every answer has to be to something of it. */
    List<Question> asked() {
        List<String> names = asked.stream().map(Question::name).toList();
        Set<String> unknown = new HashSet<>(given.keySet());
        names.forEach(unknown::remove);
        unknown.stream().sorted().findFirst().ifPresent(name -> {
            throw new WrongAnswer(name, "Nothing named " + name + " is asked of this repository"
                    + NearestName.hint(name, names));
        });
        return List.copyOf(asked);
    }
}

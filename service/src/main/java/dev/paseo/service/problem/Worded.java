package dev.paseo.service.problem;

import dev.paseo.core.text.Word;
import java.util.Arrays;
import java.util.stream.Collectors;

/** Words of requests that stand for one of several things. */
public final class Worded {

    private Worded() {}

    /**
     * The constant of a word.
     *
     * @param pointer where it stands in the request
     * @throws Refusal where there is none, with those that there are
     */
    public static <E extends Enum<E>> E read(Class<E> type, String pointer, String word) {
        return Word.read(type, word).orElseThrow(() -> Refusal.invalid(pointer, "should be one of "
                + Arrays.stream(type.getEnumConstants()).map(Word::of).collect(Collectors.joining(", ")) + "; got “"
                + word + "”"));
    }
}

package dev.paseo.core.text;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The word of a constant, as people and stored rows have it: {@code BLUE_GREEN} is {@code blue-green}. */
public final class Word {

    private Word() {}

    public static String of(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The constant of that word; empty where there is none. */
    public static <E extends Enum<E>> Optional<E> read(Class<E> type, String word) {
        return Arrays.stream(type.getEnumConstants()).filter(constant -> of(constant).equals(word)).findFirst();
    }
}

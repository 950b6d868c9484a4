package dev.paseo.language.draft;

/** An answer that cannot be used; its message says what is allowed. */
public final class WrongAnswer extends RuntimeException {

    private final String name;

    WrongAnswer(String name, String message) {
        super(message);
        this.name = name;
    }

    /** The question's name, or what was given for one. */
    public String name() {
        return name;
    }
}

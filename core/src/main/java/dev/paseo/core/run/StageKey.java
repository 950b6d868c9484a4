package dev.paseo.core.run;

/**
 * Which stage of a run: its name in the pipeline file, and its variant ({@code ""} where the stage has none).
 */
public record StageKey(String name, String variant) {
    public StageKey {
        if (name.isBlank()) {
            throw new IllegalArgumentException("a stage needs a name, got '" + name + "'");
        }
    }

    public static StageKey of(String name) {
        return new StageKey(name, "");
    }

    @Override
    public String toString() {
        return variant.isEmpty() ? name : name + " " + variant;
    }
}

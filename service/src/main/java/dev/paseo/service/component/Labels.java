package dev.paseo.service.component;

import dev.paseo.language.file.Names;
import dev.paseo.service.problem.Refusal;
import java.util.Map;

/** Labels of a component, such as {@code team: wardens}: what whereabouts are grouped and filtered by. */
final class Labels {

    private static final int MOST = 20;
    private static final int LONGEST = 120;

    private Labels() {}

    /** Puts these in place of those that were there. */
    static void keep(ComponentMapper mapper, long component, Map<String, String> labels) {
        if (labels.size() > MOST) {
            throw Refusal.invalid("/labels", "A component has at most " + MOST + " labels");
        }
        labels.forEach((name, value) -> {
            if (!Names.NAME.matcher(name).matches()) {
                throw Refusal.invalid("/labels", "A label's name has " + Names.NAME_WORDS + "; got “" + name + "”");
            }
            if (value.isBlank() || value.length() > LONGEST || value.codePoints().anyMatch(Character::isISOControl)) {
                throw Refusal.invalid("/labels/" + name,
                        "should have 1 to " + LONGEST + " characters, none of them a control character");
            }
        });
        mapper.dropLabels(component);
        labels.forEach((name, value) -> mapper.addLabel(component, name, value));
    }
}

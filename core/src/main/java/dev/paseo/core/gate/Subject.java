package dev.paseo.core.gate;

import dev.paseo.core.text.Sha256;
import java.util.ArrayList;
import java.util.List;

/**
 * What exactly an approval approves. Anything of it that changes makes another subject.
 *
 * @param version   digest of the version's artifacts, commit and recipe
 * @param settings  revision of the place's variables
 * @param secrets   revision of the place's secrets
 * @param rules     revision of the environment's rules
 * @param live      the deployment that is live there, 0 for none
 */
public record Subject(String version, long settings, long secrets, long rules, long live) {

    /** What stands for the version where a set stands at the gate: none of its members can be another unnoticed. */
    public static String ofSet(String first, List<String> others) {
        return others.isEmpty() ? first : Sha256.hex(first + String.join("", others));
    }

    /** SHA-256 over its parts, in hexadecimal. */
    public String digest() {
        String text = String.join("\n", "paseo subject 1", version, "settings " + settings, "secrets " + secrets,
                "rules " + rules, "live " + live);
        return Sha256.hex(text);
    }

    /** What is no longer as it was in an earlier one, in words. */
    public List<String> changedSince(Subject earlier) {
        List<String> changed = new ArrayList<>();
        if (settings != earlier.settings) {
            changed.add("the variables");
        }
        if (secrets != earlier.secrets) {
            changed.add("the secrets");
        }
        if (rules != earlier.rules) {
            changed.add("the rules");
        }
        if (live != earlier.live) {
            changed.add("what is live");
        }
        return changed;
    }
}

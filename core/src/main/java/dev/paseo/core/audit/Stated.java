package dev.paseo.core.audit;

import dev.paseo.core.text.Sha256;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * What the trail states of rows beside it: with each change an entry holds the digest of how they are from then on.
 * Rows that are otherwise were changed by somebody who wrote past the trail.
 */
public final class Stated {

    /** The digest of what is no longer there. */
    public static final String GONE = "gone";

    private final Map<String, String> digests = new TreeMap<>();

    /** SHA-256 of a text, in hexadecimal. */
    public static String digest(String text) {
        return Sha256.hex(text);
    }

    /** A later entry replaces what an earlier one stated. */
    public void tell(String subject, String digest) {
        digests.put(subject, digest);
    }

    /**
     * What differs, each as a finding.
     *
     * @param present the text of how each subject is now
     */
    public List<String> differing(Map<String, String> present) {
        List<String> findings = new ArrayList<>();
        new TreeMap<>(present).forEach((subject, text) -> {
            String stated = digests.get(subject);
            if (stated == null || stated.equals(GONE)) {
                findings.add(subject + " was added past the trail: no entry states how it is");
            } else if (!stated.equals(digest(text))) {
                findings.add(subject + " was changed past the trail: it is not as the newest entry about it states");
            }
        });
        digests.forEach((subject, stated) -> {
            if (!stated.equals(GONE) && !present.containsKey(subject)) {
                findings.add(subject + " was removed past the trail: it is not there any more");
            }
        });
        return findings;
    }
}

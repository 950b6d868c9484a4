package dev.paseo.service.store;

import com.fasterxml.jackson.annotation.JsonProperty;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;

/** A place outside where versions appear. */
interface WatchedStore {

    /** Where, and which of what is there. */
    record Where(Kind kind, String address, Optional<String> name, Optional<String> group, Optional<String> extension,
            String pattern, boolean existing) {}

    /** What is watched. */
    enum Kind {
        @JsonProperty("registry")
        REGISTRY,
        @JsonProperty("maven")
        MAVEN,
        @JsonProperty("folder")
        FOLDER
    }

    /**
     * Something that is there now.
     *
     * @param number the version's
     * @param digest what tells it from others under the same name
     */
    record Sighting(String number, String digest) {}

    /**
     * What is there now, the oldest first where the store tells.
     *
     * @param seenBefore whether anything was ever seen there: then its absence is trouble, else it is only not there
     *                   yet
     */
    List<Sighting> list(boolean seenBefore);

    /** Fetches exactly what was sighted into the byte store; refused where other bytes come. */
    List<Versions.Artifact> fetch(Sighting sighting);
}

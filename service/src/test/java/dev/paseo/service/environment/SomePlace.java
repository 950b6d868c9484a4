package dev.paseo.service.environment;

import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments.Place;
import java.util.Optional;

/** Places for tests that need no more of one than that it is there. */
public final class SomePlace {

    private SomePlace() {}

    /** The place 3 of the component 7 in the environment 5, which is production; nothing is live. */
    public static Place of(String component) {
        return place(3, 5, 7, component, Optional.empty());
    }

    /** The same with this deployment live. */
    public static Place with(long live, String component) {
        return place(3, 5, 7, component, Optional.of(live));
    }

    /** One that has rows. */
    public static Place of(Rows.Place row, String component) {
        return place(row.id(), row.environment(), row.component(), component, Optional.empty());
    }

    private static Place place(long id, long environment, long component, String name, Optional<Long> live) {
        return new Place(id, environment, "production", "UTC", 1, component, name, Optional.empty(), 1, live,
                Optional.empty(), Optional.empty(), Optional.empty());
    }
}

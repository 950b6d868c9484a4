package dev.paseo.service.audit;

import java.util.Map;

/**
 * Rows that nobody may change past the trail: whatever changes them {@linkplain AuditTrail.Entry#stating states} how
 * they are then.
 */
public interface Guarded {

    /** The first word of its subjects, such as {@code account}. */
    String kind();

    /** How each subject is now, as a text that is the same only where the rows are. */
    Map<String, String> states();
}

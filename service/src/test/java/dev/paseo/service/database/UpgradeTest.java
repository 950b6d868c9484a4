package dev.paseo.service.database;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import org.junit.jupiter.api.Test;

/** What an earlier release left is brought to what this one holds for certain. */
class UpgradeTest {

    @Test
    void ofTwoOpenOnesTheNewerStays() throws Exception {
        try (RealDatabase.Upgraded database = new RealDatabase.Upgraded("19")) {
            database.write("insert into account (name, password_hash, created_at) values ('admin', '', now())");
            database.write("insert into component (name, file_path, main_branch, created_at) values ('a', 'f', "
                    + "'main', now())");
            database.write("insert into environment (name, position, zone, rules, rules_revision) values ('e', 1, "
                    + "'UTC', '{}', 1)");
            database.write("insert into place (environment_id, component_id, settings_revision) values (1, 1, 1)");
            database.write("insert into hold (place_id, reason, set_by, at) values (1, 'first', 1, '2026-05-04 "
                    + "08:00'), "
                    + "(1, 'second', 1, '2026-05-04 09:00')");
            database.write("insert into closure (environment_id, reason, set_by, at) values (1, 'first', 1, "
                    + "'2026-05-04 08:00'), "
                    + "(1, 'second', 1, '2026-05-04 09:00')");
            database.to("latest");
            assertEquals(List.of("second"), database.read("select reason from hold where lifted_at is null"));
            assertEquals(List.of("2026-05-04 09:00:00.000000"),
                    database.read("select lifted_at from hold where reason = 'first'"));
            assertEquals(List.of("second"), database.read("select reason from closure where lifted_at is null"));
        }
    }
}

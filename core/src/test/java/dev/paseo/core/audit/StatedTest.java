package dev.paseo.core.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class StatedTest {

    @Test
    void whatIsOtherwiseThanTheNewestEntryStatesIsFound() {
        Stated stated = new Stated();
        stated.tell("account a", Stated.digest("viewer"));
        stated.tell("account b", Stated.digest("viewer"));
        stated.tell("account b", Stated.digest("developer"));
        stated.tell("account c", Stated.digest("tester"));
        stated.tell("account d", Stated.GONE);
        assertEquals(List.of(),
                stated.differing(Map.of("account a", "viewer", "account b", "developer", "account c", "tester")));
        assertEquals(List.of("account a was changed past the trail: it is not as the newest entry about it states",
                "account d was added past the trail: no entry states how it is",
                "account e was added past the trail: no entry states how it is",
                "account c was removed past the trail: it is not there any more"),
                stated.differing(Map.of("account a", "administrator", "account b", "developer", "account d", "viewer",
                        "account e", "viewer")));
    }
}

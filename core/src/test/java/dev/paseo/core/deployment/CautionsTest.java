package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.Cautions.InLine;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What a person is told before they deploy past it. */
class CautionsTest {

    private static final InLine OLDER = new InLine("1.4.1", 1, 1);
    private static final InLine NEWER = new InLine("1.4.2", 1, 2);

    private static List<String> said(Kind kind, InLine proposed, InLine live) {
        return Cautions.of(kind, "daylight-api in test", proposed, Optional.of(live), Optional.empty());
    }

    @Test
    void aStepForwardIsNothingToBeToldOf() {
        assertEquals(List.of(), said(Kind.PROMOTION, NEWER, OLDER));
        assertEquals(List.of(),
                Cautions.of(Kind.PROMOTION, "daylight-api in test", NEWER, Optional.empty(), Optional.empty()));
    }

    @Test
    void aStepBackIsToldUnlessItIsMeant() {
        assertEquals(List.of("1.4.1 is older than 1.4.2, which is live there: this is a step back in the line"),
                said(Kind.PROMOTION, OLDER, NEWER));
        assertEquals(List.of(), said(Kind.ROLLBACK, OLDER, NEWER));
    }

    @Test
    void theSameAgainAndAnotherLineAreTold() {
        assertEquals(List.of("1.4.2 is live there already: this deploys the same version again"),
                said(Kind.PROMOTION, NEWER, NEWER));
        assertEquals(List.of(), said(Kind.REDEPLOY, NEWER, NEWER));
        assertEquals(List.of("9.1 is of another line than 1.4.2, which is live there"),
                said(Kind.PROMOTION, new InLine("9.1", 2, 1), NEWER));
    }

    @Test
    void aHoldIsToldFirst() {
        assertEquals(List.of(
                "daylight-api in test is held by operator: “fog”. Nothing goes there by itself; this goes past the "
                        + "hold, which stays",
                "1.4.1 is older than 1.4.2, which is live there: this is a step back in the line"),
                Cautions.of(Kind.PROMOTION, "daylight-api in test", OLDER, Optional.of(NEWER),
                        Optional.of("by operator: “fog”")));
    }
}

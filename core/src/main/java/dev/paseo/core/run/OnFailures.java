package dev.paseo.core.run;

/** What becomes of steps that ended well, although their report tells of failed tests. */
public enum OnFailures {
    FAIL, WARN, PASS;

    /** @param failed how many tests failed, as its reports say */
    public StageOutcome outcome(long failed) {
        if (failed == 0 || this == PASS) {
            return new StageOutcome.Passed();
        }
        String reason = "its steps ended well, but its report tells of "
                + (failed == 1 ? "1 failed test" : failed + " failed tests");
        return this == FAIL ? new StageOutcome.Failed(reason) : new StageOutcome.Warned(reason);
    }
}

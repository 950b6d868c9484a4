package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SetCourseTest {

    private static Optional<DeploymentStatus> status(String word) {
        return word.equals("-") ? Optional.empty() : Optional.of(DeploymentStatus.valueOf(word));
    }

    @ParameterizedTest
    @CsvSource({
            "- -,               WAITING, REQUEST, 0",
            "WAITING -,         WAITING,, 0",
            "DEPLOYING -,       DEPLOYING,, 0",
            "LIVE -,            DEPLOYING, REQUEST, 1",
            "LIVE CHECKING,     DEPLOYING,, 1",
            "LIVE LIVE,         LIVE,, 2",
            "REPLACED -,        DEPLOYING, REQUEST, 1",
            "REPLACED LIVE,     LIVE,, 2",
            "REPLACED FAILED,   FAILED,, 0",
            "LIVE WAITING,      DEPLOYING,, 1",
            "REJECTED -,        REJECTED,, 0",
            "FAILED -,          FAILED,, 0",
            "LIVE UNDOING,      UNDOING,, 1",
            "LIVE UNDONE,       UNDOING, UNDO, 0",
            "UNDOING UNDONE,    UNDOING,, 0",
            "UNDONE UNDONE,     UNDONE,, 0",
            "UNDONE FAILED,     UNDONE,, 0",
            "UNDOING LIVE,      UNDOING, UNDO, 1",
            "STOPPED UNDONE,    STOPPED,, 0",
            "LIVE STOPPED,      UNDOING, UNDO, 0"})
    void whatIsNext(String members, SetCourse.Status status, SetCourse.Act act, int member) {
        assertEquals(new SetCourse.Next(status, Optional.ofNullable(act), member),
                SetCourse.next(Arrays.stream(members.split(" ")).map(SetCourseTest::status).toList()));
    }

    @ParameterizedTest
    @CsvSource({"- -, -1", "LIVE LIVE, -1", "LIVE FAILED, 1", "UNDONE FAILED, 1", "REJECTED -, 0", "UNDOING LIVE, 0",
            "LIVE WAITING, -1", "LIVE OVERTAKEN, 1"})
    void whoDidNotComeToBeLive(String members, int culprit) {
        assertEquals(culprit,
                SetCourse.culprit(Arrays.stream(members.split(" ")).map(SetCourseTest::status).toList()).orElse(-1));
    }

    @ParameterizedTest
    @CsvSource({"WAITING, false, false", "DEPLOYING, false, false", "LIVE, true, false", "UNDOING, false, true",
            "UNDONE, true, true", "STOPPED, true, true", "REJECTED, true, true", "FAILED, true, true"})
    void whatIsOverAndWhatFell(SetCourse.Status status, boolean ended, boolean fell) {
        assertEquals(ended, status.ended());
        assertEquals(fell, status.fell());
    }

    /** Whichever member fails, played to its end nothing of the set stays live, or all of it is. */
    @Property(tries = 300)
    void allOfItOrNothing(@ForAll @IntRange(min = 1, max = 6) int size,
            @ForAll @Size(6) List<@IntRange(max = 3) Integer> fates) {
        List<Optional<DeploymentStatus>> members = new ArrayList<>();
        for (int at = 0; at < size; at++) {
            members.add(Optional.empty());
        }
        for (int step = 0; step < 50; step++) {
            SetCourse.Next next = SetCourse.next(members);
            if (next.act().isEmpty()) {
                break;
            }
            members.set(next.member(), Optional.of(next.act().get() == SetCourse.Act.UNDO ? DeploymentStatus.UNDONE
                    : fates.get(next.member()) == 0 ? DeploymentStatus.UNDONE
                            : fates.get(next.member()) == 1 ? DeploymentStatus.FAILED : DeploymentStatus.LIVE));
        }
        SetCourse.Status end = SetCourse.next(members).status();
        boolean anyLive = members.stream().flatMap(Optional::stream).anyMatch(each -> each == DeploymentStatus.LIVE);
        assertTrue(
                end == SetCourse.Status.LIVE
                        ? members.stream().allMatch(each -> each.equals(Optional.of(DeploymentStatus.LIVE))) : !anyLive,
                () -> end + " " + members);
    }
}

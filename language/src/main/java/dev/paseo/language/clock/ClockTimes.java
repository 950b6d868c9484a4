package dev.paseo.language.clock;

import com.cronutils.model.CronType;
import com.cronutils.model.definition.CronDefinitionBuilder;
import com.cronutils.model.time.ExecutionTime;
import com.cronutils.parser.CronParser;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.zone.ZoneOffsetTransition;
import java.util.Optional;

/**
 * When a clock of five cron fields strikes in a zone. Where clocks are put forward, a time that is left out strikes as
 * much later as they were put forward; where they are put back, a time that comes twice strikes once. A clock that
 * strikes every hour does so in real time.
 */
public final class ClockTimes {

    private ClockTimes() {}

    /** Five fields, or an exception that says what is wrong. */
    public static void require(String cron) {
        new CronParser(CronDefinitionBuilder.instanceDefinitionFor(CronType.UNIX)).parse(cron).validate();
    }

    /** The next time after this moment; empty where there never is one, such as on 30 February. */
    public static Optional<Instant> next(String cron, String zone, Instant after) {
        ExecutionTime times = ExecutionTime
                .forCron(new CronParser(CronDefinitionBuilder.instanceDefinitionFor(CronType.UNIX)).parse(cron));
        ZoneId where = ZoneId.of(zone);
        return cron.strip().split("\\s+")[1].equals("*") ? hourly(times, where, after) : daily(times, where, after);
    }

    private static Optional<Instant> daily(ExecutionTime times, ZoneId zone, Instant after) {
        // Wall-clock time is walked through as if it had no changes; one step back covers times that come twice or are
        // left out.
        LocalDateTime wall = LocalDateTime.ofInstant(after, zone).minusDays(1);
        for (Optional<LocalDateTime> next = step(times, wall); next.isPresent(); next = step(times, next.get())) {
            Instant at = next.get().atZone(zone).toInstant();
            if (at.isAfter(after)) {
                return Optional.of(at);
            }
        }
        return Optional.empty();
    }

    private static Optional<LocalDateTime> step(ExecutionTime times, LocalDateTime wall) {
        return times.nextExecution(wall.atZone(ZoneOffset.UTC)).map(ZonedDateTime::toLocalDateTime);
    }

    private static Optional<Instant> hourly(ExecutionTime times, ZoneId zone, Instant after) {
        Optional<Instant> next = times.nextExecution(after.atZone(zone.getRules().getOffset(after)))
                .map(ZonedDateTime::toInstant);
        ZoneOffsetTransition change = zone.getRules().nextTransition(after);
        if (next.isEmpty() || change == null || next.get().isBefore(change.getInstant())) {
            return next;
        }
        return times.nextExecution(change.getInstant().minusSeconds(1).atZone(change.getOffsetAfter()))
                .map(ZonedDateTime::toInstant);
    }
}

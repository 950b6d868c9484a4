package park.sun;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Optional;

/**
 * The day's course of the sun at a place, by the almanac's formulas for declination, equation of time and hour angle. Good
 * to about two minutes between the polar circles; the horizon is level, and the upper edge of the sun is what counts.
 */
public final class Sun {

    /** The sun's centre, seen through the air, when its upper edge touches the horizon: degrees from the zenith. */
    private static final double HORIZON = 90.833;

    private static final double OBLIQUITY = 23.44;

    private Sun() {}

    /** A place: degrees north and degrees east. */
    public record Place(double north, double east) {

        public Place {
            if (!(Math.abs(north) <= 90 && Math.abs(east) <= 180)) {
                throw new IllegalArgumentException("no place on earth: " + north + " north, " + east + " east");
            }
        }
    }

    /** When the sun rises and sets. */
    public record Day(Instant sunrise, Instant sunset) {}

    /** A day's sunrise and sunset at a place; empty where the sun does not rise, or does not set, on that day. */
    public static Optional<Day> day(Place place, LocalDate date) {
        double turn = 2 * Math.PI * (date.getDayOfYear() - 1 + 0.5 - place.east() / 360) / date.lengthOfYear();
        double declination = declination(turn);
        double latitude = Math.toRadians(place.north());
        double cosine = (Math.cos(Math.toRadians(HORIZON)) - Math.sin(latitude) * Math.sin(declination)) / (Math.cos(latitude) * Math.cos(declination));
        if (Math.abs(cosine) > 1) {
            return Optional.empty();
        }
        double hourAngle = Math.toDegrees(Math.acos(cosine));
        double noon = 720 - 4 * place.east() - equationOfTime(turn);
        return Optional.of(new Day(minute(date, noon - 4 * hourAngle), minute(date, noon + 4 * hourAngle)));
    }

    /** How far the sun stands north of the equator, in radians; the year's turn in radians. */
    static double declination(double turn) {
        double longitude = turn - Math.toRadians(79.6) + Math.toRadians(1.915) * Math.sin(turn - Math.toRadians(2.5));
        return Math.asin(Math.sin(Math.toRadians(OBLIQUITY)) * Math.sin(longitude));
    }

    /** How far a sundial is ahead of the clock, in minutes; the year's turn in radians. */
    static double equationOfTime(double turn) {
        return 229.18 * (0.000075 + 0.001868 * Math.cos(turn) - 0.032077 * Math.sin(turn) - 0.014615 * Math.cos(2 * turn) - 0.040849 * Math.sin(2 * turn));
    }

    private static Instant minute(LocalDate date, double minutes) {
        return date.atStartOfDay(ZoneOffset.UTC).toInstant().plusSeconds(Math.round(minutes * 60));
    }
}

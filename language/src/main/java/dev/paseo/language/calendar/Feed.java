package dev.paseo.language.calendar;

import java.time.Instant;
import java.util.List;
import net.fortuna.ical4j.data.CalendarOutputter;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtStamp;
import net.fortuna.ical4j.model.property.ProdId;
import net.fortuna.ical4j.model.property.Uid;
import net.fortuna.ical4j.model.property.Url;
import net.fortuna.ical4j.model.property.XProperty;
import net.fortuna.ical4j.model.property.immutable.ImmutableCalScale;
import net.fortuna.ical4j.model.property.immutable.ImmutableVersion;

/** Writes calendars of RFC 5545. */
public final class Feed {

    /** @param url where it is looked at; may be empty */
    public record CalendarEvent(String uid, Instant from, Instant until, String summary, String url) {}

    private Feed() {}

    public static String write(String name, Instant now, List<CalendarEvent> events) {
        Calendar calendar = new Calendar();
        calendar.add(new ProdId("-//paseo//" + name + "//EN"));
        calendar.add(ImmutableVersion.VERSION_2_0);
        calendar.add(ImmutableCalScale.GREGORIAN);
        calendar.add(new XProperty("X-WR-CALNAME", name));
        for (CalendarEvent event : events) {
            VEvent written = new VEvent(event.from(), event.until(), event.summary());
            written.add(new Uid(event.uid()));
            written.replace(new DtStamp(now));
            if (!event.url().isEmpty()) {
                written.add(new Url(java.net.URI.create(event.url())));
            }
            calendar.add(written);
        }
        return calendar.getComponents().isEmpty() ? calendar.toString() : written(calendar);
    }

    private static String written(Calendar calendar) {
        java.io.StringWriter out = new java.io.StringWriter();
        try {
            new CalendarOutputter(false).output(calendar, out);
        } catch (java.io.IOException impossible) {
            throw new java.io.UncheckedIOException(impossible);
        }
        return out.toString();
    }
}

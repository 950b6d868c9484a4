package dev.paseo.service.web;

import java.time.DateTimeException;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Configuration;
import org.springframework.format.FormatterRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Moments in addresses: RFC 3339, within the years that the database has. */
@Configuration
class AddressedMoments implements WebMvcConfigurer {

    private static final Instant FIRST = Instant.parse("1000-01-01T00:00:00Z");
    private static final Instant LAST = Instant.parse("9999-12-31T23:59:59Z");

    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(String.class, Instant.class, AddressedMoments::of);
    }

    /** Nothing where nothing is said. */
    static @Nullable Instant of(String text) {
        if (text.isBlank()) {
            return null;
        }
        Instant moment = Instant.parse(text.strip());
        if (moment.isBefore(FIRST) || moment.isAfter(LAST)) {
            throw new DateTimeException(text + " is no moment of the years 1000 to 9999");
        }
        return moment;
    }
}

package dev.paseo.service.bytes;

import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import dev.paseo.core.text.Size;

/**
 * How kept bytes are looked over, under {@code paseo.scrub.}.
 *
 * @param rate  how much is read in a second at most; 1 kB or more
 * @param every how long a file that was found good is left alone
 */
@ConfigurationProperties("paseo.scrub")
record ScrubSettings(@DefaultValue("2MB") Size rate, @DefaultValue("7d") Duration every) {

    ScrubSettings {
        if (rate.bytes() < 1000) {
            throw new IllegalArgumentException(
                    "paseo.scrub.rate: should be at least 1kB a second; got " + Size.words(rate.bytes()));
        }
    }
}

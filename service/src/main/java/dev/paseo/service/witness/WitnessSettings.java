package dev.paseo.service.witness;

import jakarta.validation.constraints.NotNull;
import java.nio.file.Path;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.validation.annotation.Validated;

/**
 * Handing on heads of the audit trail, under {@code paseo.heads.}.
 *
 * @param file  where they are written too, one a line: on another machine, where nobody who manages this one can change
 *              it; none: nowhere
 * @param every how often a new head is handed on at most; 1 s or more
 */
@Validated
@ConfigurationProperties("paseo.heads")
public record WitnessSettings(@Nullable Path file, @DefaultValue("1h") @NotNull Duration every) {

    public WitnessSettings {
        if (every.compareTo(Duration.ofSeconds(1)) < 0) {
            throw new IllegalArgumentException("paseo.heads.every should be 1 s or more");
        }
    }
}

package dev.paseo.service.preview;

import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.place.Places;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.preview.PreviewMapper.TemplateRow;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Takes previews away whose branch is gone, whose time is over, or whose work has been promoted; again and again until
 * it is done.
 */
@Component
class PreviewSweeper {

    private static final Logger LOG = LoggerFactory.getLogger(PreviewSweeper.class);
    private static final Duration AGAIN = Duration.ofSeconds(15);

    private final PreviewMapper mapper;
    private final Previews previews;
    private final Places places;
    private final PreviewEnds ends;
    private final ServiceClock clock;

    PreviewSweeper(PreviewMapper mapper, Previews previews, Places places, PreviewEnds ends, ServiceClock clock) {
        this.mapper = mapper;
        this.previews = previews;
        this.places = places;
        this.ends = ends;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 2000)
    void sweep() {
        try {
            List<PreviewRow> there = mapper.there();
            if (there.isEmpty()) {
                return;
            }
            List<TemplateRow> templates = mapper.templates();
            for (PreviewRow preview : there) {
                Template template = templates.stream().filter(row -> row.environmentId() == preview.templateId())
                        .map(previews::template).findFirst().orElseThrow();
                look(preview, template);
            }
        } catch (RuntimeException failed) {
            LOG.warn("previews are not looked after for the moment: {}", failed.toString());
        }
    }

    private void look(PreviewRow preview, Template template) {
        Instant now = clock.now();
        if (preview.removing() != null) {
            boolean busy = !places.isQuiet(mapper.place(preview.environmentId()));
            if (!busy || Optional.ofNullable(preview.triedAt()).filter(tried -> tried.plus(AGAIN).isAfter(now))
                    .isEmpty()) {
                boolean soon = Optional.ofNullable(preview.triedAt())
                        .filter(tried -> tried.plus(Duration.ofSeconds(2)).isAfter(now)).isPresent();
                if (!soon) {
                    previews.remove(preview, preview.removing(), "paseo");
                }
            }
            return;
        }
        ends.of(preview, template, now).ifPresent(why -> previews.remove(preview, why, "paseo"));
    }
}

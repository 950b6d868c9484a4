package dev.paseo.service.preview;

import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.service.clock.ServiceClock;
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
    private final PreviewRemovals removals;
    private final PreviewTemplates templates;
    private final PreviewEnds ends;
    private final ServiceClock clock;

    PreviewSweeper(PreviewMapper mapper, PreviewRemovals removals, PreviewTemplates templates, PreviewEnds ends,
            ServiceClock clock) {
        this.mapper = mapper;
        this.removals = removals;
        this.templates = templates;
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
            List<TemplateRow> rows = mapper.templates();
            for (PreviewRow preview : there) {
                Template template = rows.stream().filter(row -> row.environmentId() == preview.templateId())
                        .map(templates::read).findFirst().orElseThrow();
                look(preview, template);
            }
        } catch (RuntimeException failed) {
            LOG.warn("previews are not looked after for the moment: {}", failed.toString());
        }
    }

    private void look(PreviewRow preview, Template template) {
        Instant now = clock.now();
        if (preview.removing() != null) {
            boolean busy = removals.busy(preview);
            if (!busy || Optional.ofNullable(preview.triedAt()).filter(tried -> tried.plus(AGAIN).isAfter(now))
                    .isEmpty()) {
                boolean soon = Optional.ofNullable(preview.triedAt())
                        .filter(tried -> tried.plus(Duration.ofSeconds(2)).isAfter(now)).isPresent();
                if (!soon) {
                    removals.remove(preview, preview.removing(), "paseo");
                }
            }
            return;
        }
        ends.of(preview, template, now).ifPresent(why -> removals.remove(preview, why, "paseo"));
    }
}

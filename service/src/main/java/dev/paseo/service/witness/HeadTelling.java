package dev.paseo.service.witness;

import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.TrailExport;
import dev.paseo.service.database.Transactions;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Tells heads of the trail to the receivers that want them, each once. */
@Component
class HeadTelling {

    private final ToldHeadMapper mapper;
    private final TrailExport trail;
    private final Announcements announcements;
    private final Transactions transactions;

    HeadTelling(ToldHeadMapper mapper, TrailExport trail, Announcements announcements, Transactions transactions) {
        this.mapper = mapper;
        this.trail = trail;
        this.announcements = announcements;
        this.transactions = transactions;
    }

    /** Tells the newest head, where it is another than the last one and that was told so long ago. */
    void tell(Instant now, Duration every) {
        trail.newestHead().filter(head -> isDue(head, now.minus(every)))
                .ifPresent(head -> transactions.run(() -> {
                    if (mapper.tell(head.size(), now, head.line()) == 1) {
                        announcements.headSigned(head);
                    }
                }));
    }

    private boolean isDue(TrailExport.HeadView head, Instant latest) {
        return mapper.newest().map(told -> head.size() != told.size() && !told.at().isAfter(latest)).orElse(true);
    }

    Optional<HeadFile.HandedView> newest() {
        return mapper.newest().map(HeadFile.HandedView::of);
    }

    List<String> receivers() {
        return announcements.receiversOfHeads();
    }
}

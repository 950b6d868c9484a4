package dev.paseo.service.notice;

import dev.paseo.service.quota.Quotas;
import org.springframework.stereotype.Component;

/** Tells those who keep a component that it has nearly all kept that it may. */
@Component
class QuotaNotices implements Quotas.Hearer {

    private final Notices notices;

    QuotaNotices(Notices notices) {
        this.notices = notices;
    }

    @Override
    public void nearlyFull(String component, String sentence) {
        notices.tellKeepers(component, Notices.Said.of(NoticeKind.NEARLY_FULL, component,
                component + " has nearly all kept that it may", sentence, "/components/" + component, sentence));
    }
}

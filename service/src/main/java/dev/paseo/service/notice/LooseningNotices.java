package dev.paseo.service.notice;

import dev.paseo.service.loosening.Agreements;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Tells those who are asked to agree to a loosening, and whoever wants it how it ended. */
@Component
class LooseningNotices implements Agreements.Hearer {

    private static final String PATH = "/waiting";

    private final Notices notices;

    LooseningNotices(Notices notices) {
        this.notices = notices;
    }

    @Override
    public void asked(long id, String by, List<String> what, Set<String> people) {
        notices.tell(people, Notices.Said.of(NoticeKind.WAITS, "", by + " wants to loosen what is asked",
                String.join("\n", what), PATH, "loosening " + id));
    }

    @Override
    public void ended(long id, String by, String sentence) {
        notices.tell(Set.of(by),
                Notices.Said.of(NoticeKind.DECIDED, "", "Loosening " + id + ": " + sentence, sentence, PATH,
                        "loosening ended " + id));
    }
}

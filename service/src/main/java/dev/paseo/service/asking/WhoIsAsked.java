package dev.paseo.service.asking;

import dev.paseo.core.access.AskedAct;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Who may do what is asked, and telling them and whoever asks. */
@Component
class WhoIsAsked {

    private final Accounts accounts;
    private final Notices notices;

    WhoIsAsked(Accounts accounts, Notices notices) {
        this.accounts = accounts;
        this.notices = notices;
    }

    /** In the order of their names. */
    Set<String> of(AskedAct act, String component, String environment) {
        return accounts.people().stream()
                .filter(person -> person.may(act.action(), Optional.of(component), Optional.of(environment)))
                .map(person -> person.name()).collect(Collectors.toCollection(TreeSet::new));
    }

    void asked(Asks.AskedView ask) {
        notices.tell(ask.asked(), Notices.Said.of(NoticeKind.WAITS, ask.component(),
                ask.by() + " asks you to " + ask.sentence(), ask.words(), "/waiting#ask-" + ask.id(),
                "ask " + ask.id()));
    }

    void ended(Asks.AskedView ask, String how, Optional<Long> deployment) {
        notices.tell(List.of(ask.by()), Notices.Said.of(NoticeKind.DECIDED, ask.component(),
                "You asked to " + ask.sentence(), how,
                deployment.map(id -> "/deployments/" + id).orElse("/waiting"), "ask " + ask.id()));
    }
}

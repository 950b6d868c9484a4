package dev.paseo.service.notice;

import dev.paseo.core.access.Person;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.time.Duration;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Links in mails: for one person, once, for a week. They lead to a page and decide nothing. */
@Component
class MailLinks {

    private static final Duration LASTS = Duration.ofDays(7);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm 'UTC'", Locale.ENGLISH)
            .withZone(ZoneOffset.UTC);

    private final NoticeMapper mapper;
    private final ServiceClock clock;
    private final Settings settings;

    MailLinks(NoticeMapper mapper, ServiceClock clock, Settings settings) {
        this.mapper = mapper;
        this.clock = clock;
        this.settings = settings;
    }

    String address(long account, String path) {
        String token = Tokens.fresh("paseo-link");
        mapper.addLink(Sha256.hex(token), account, path, clock.now().plus(LASTS));
        return settings.address() + "/link/" + token;
    }

    /** Uses the link up; where it leads to. */
    String use(String token, Person person) {
        String hash = Sha256.hex(token);
        NoticeMapper.LinkRow link = mapper.link(hash).orElseThrow(
                () -> Refusal.notFound("There is no such link; open what waits for you on the page Waiting"));
        if (link.accountId() != person.id()) {
            throw Refusal.notAllowed("This link was sent to " + link.account() + ", and you are signed in as "
                    + person.name() + ": a link is for the one it was sent to");
        }
        if (mapper.use(hash, clock.now()) == 0) {
            throw Refusal.conflict(link.usedAt() != null
                    ? "This link was used on " + TIME.format(link.usedAt()) + ", and a link works once"
                    : "This link expired on " + TIME.format(link.expiresAt()));
        }
        return link.path();
    }
}

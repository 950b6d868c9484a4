package dev.paseo.service.notice;

import dev.paseo.core.access.Action;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.change.Changes;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.notice.NoticeKind.Delivery;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Tells people; in the transaction under way, so that nobody is told of what did not happen. */
@Component
public class Notices {

    static final String CONSOLE = "console";
    static final String MAIL = "mail";

    /**
     * What is told.
     *
     * @param path   where in the console it is looked at
     * @param dedupe the same for what is told only once
     */
    public record Said(String event, String component, String title, String body, String path, String dedupe) {
        public static Said of(NoticeKind event, String component, String title, String body, String path,
                String dedupe) {
            return new Said(event.word(), component, Shortened.to(title, 300), Shortened.to(body, 4000), path,
                    Shortened.to(event.word() + " " + dedupe, 200));
        }
    }

    private final NoticeMapper mapper;
    private final Changes changes;
    private final Accounts accounts;

    Notices(NoticeMapper mapper, Changes changes, Accounts accounts) {
        this.mapper = mapper;
        this.changes = changes;
        this.accounts = accounts;
    }

    /** Tells these accounts, by name; nobody twice the same. */
    public void tell(Collection<String> people, Said said) {
        people.stream().distinct().forEach(name -> mapper.account(name).ifPresent(account -> tell(account, said)));
    }

    public void tellAdministrators(Said said) {
        tell(mapper.administrators(), said);
    }

    /** Tells those who keep a component: administrators and its release engineers. */
    public void tellKeepers(String component, Said said) {
        tell(mapper.keepers(component), said);
    }

    /** Tells those who follow a component and still see it. */
    public void tellFollowers(long component, Said said) {
        tell(whoSee(mapper.followers(component, null, null), said, Optional.empty()), said);
    }

    /** Where a deployment is, which may be followed as well as it itself. */
    public record Followed(long component, long environment, String environmentName, long deployment) {}

    /** Tells those who follow a deployment, its component or its environment, and still see it. */
    public void tellFollowers(Followed where, Said said) {
        tell(whoSee(mapper.followers(where.component(), where.environment(), where.deployment()), said,
                Optional.of(where.environmentName())), said);
    }

    private List<String> whoSee(List<String> followers, Said said, Optional<String> environment) {
        return followers.stream()
                .filter(name -> accounts.named(name).may(Action.LOOK, Optional.of(said.component()), environment))
                .toList();
    }

    /** Tells those who pushed a commit. */
    public void tellPushers(long component, String commit, Said said) {
        tell(mapper.pushers(component, commit), said);
    }

    private void tell(long account, Said said) {
        Map<String, Delivery> choices = deliveries(mapper.choices(account),
                NoticeKind.valueOf(said.event().toUpperCase(Locale.ROOT).replace('-', '_')), said.component());
        Instant now = changes.now();
        @Nullable
        Instant mail = due(choices.get(MAIL), now);
        boolean shown = choices.get(CONSOLE) != Delivery.OFF;
        if ((mail != null || shown) && mapper.add(account, said, now, mail, shown ? null : now) == 1) {
            changes.publish("notices", mapper.name(account));
        }
    }

    private static @Nullable Instant due(Delivery delivery, Instant now) {
        return switch (delivery) {
            case NOW -> now;
            case HOURLY -> now.truncatedTo(ChronoUnit.HOURS).plus(1, ChronoUnit.HOURS);
            case DAILY -> now.truncatedTo(ChronoUnit.DAYS).plus(1, ChronoUnit.DAYS);
            case OFF -> null;
        };
    }

    /** What was chosen for this component, else for all, else what holds where nothing was. */
    static Map<String, Delivery> deliveries(List<NoticeMapper.ChoiceRow> choices, NoticeKind event, String component) {
        Map<String, Delivery> deliveries = new LinkedHashMap<>();
        for (String channel : new String[]{CONSOLE, MAIL}) {
            List<NoticeMapper.ChoiceRow> fitting = choices.stream()
                    .filter(row -> row.event().equals(event.word()) && row.channel().equals(channel)).toList();
            deliveries.put(channel, fitting.stream().filter(row -> row.component().equals(component)).findFirst()
                    .or(() -> fitting.stream().filter(row -> row.component().isEmpty()).findFirst())
                    .map(row -> Delivery.valueOf(row.delivery().toUpperCase(Locale.ROOT)))
                    .orElse(event.delivery(channel)));
        }
        return deliveries;
    }
}

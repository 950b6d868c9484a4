package dev.paseo.service.passage;

import dev.paseo.service.change.Changes;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.passage.WalkStayMapper.StayRow;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * Walks that stay before an environment because something is missing there: told to whoever can mend it, and tried
 * again.
 */
@Component
public class WalkStays {

    /** How long until a walk that stays is tried again. */
    static final Duration AGAIN = Duration.ofSeconds(10);

    /** Where a version's walk stays, where it came from, and why. */
    public record Stay(long version, String environment, String from, String reason) {}

    private final WalkStayMapper mapper;
    private final Changes changes;
    private final Authorship authorship;
    private final Notices notices;

    WalkStays(WalkStayMapper mapper, Changes changes, Authorship authorship, Notices notices) {
        this.mapper = mapper;
        this.changes = changes;
        this.authorship = authorship;
        this.notices = notices;
    }

    /** It stays; told once for each reason. */
    public void stays(Versions.Version version, String environment, String from, String reason) {
        changes.run(() -> {
            boolean known = mapper.of(version.id(), environment).filter(row -> row.reason().equals(reason)).isPresent();
            mapper.overtaken(version.id(), environment);
            mapper.stay(version.id(), environment, from, reason, changes.now(), changes.now().plus(AGAIN));
            if (!known) {
                String what = version.component() + " " + version.number();
                changes.record(AuditTrail.Entry.of("paseo", "walk stays", what).in(environment).because(reason));
                Notices.Said said = Notices.Said.of(NoticeKind.STAYS, version.component(),
                        what + " does not go on to " + environment, reason
                                + ". When that is mended, it goes on by itself.",
                        "/versions/" + version.component() + "/" + version.number(),
                        version.id() + " " + environment + " " + reason);
                Set<String> authors = new LinkedHashSet<>(version.commit()
                        .map(commit -> authorship.behind(version.componentId(), Optional.empty(), commit)
                                .map(Authorship.Behind::accounts).orElse(Set.of()))
                        .orElseGet(() -> authorship.stated(version.id()).accounts()));
                notices.tell(authors, said);
                version.commit()
                        .ifPresent(commit -> notices.tellPushers(version.componentId(), commit, said));
                notices.tellAdministrators(said);
                changes.publish("whereabouts", version.component());
            }
        });
    }

    /** It goes on, or need not any more. */
    public void goesOn(Versions.Version version, String environment) {
        changes.run(() -> {
            if (mapper.gone(version.id(), environment) + mapper.overtaken(version.id(), environment) > 0) {
                changes.publish("whereabouts", version.component());
            }
        });
    }

    /** It ends before this environment: it would go backwards there, or is on its way already. */
    public void ends(Versions.Version version, String environment, String reason) {
        changes.run(() -> {
            changes.record(AuditTrail.Entry.of("paseo", "walk ends", version.component() + " " + version.number())
                    .in(environment).because(reason));
            goesOn(version, environment);
        });
    }

    public List<Stay> of(long version) {
        return mapper.ofVersion(version).stream().map(WalkStays::stay).toList();
    }

    private static Stay stay(StayRow row) {
        return new Stay(row.versionId(), row.environment(), row.cameFrom(), row.reason());
    }

    /** Those that this replica is to try now. */
    public List<Stay> due() {
        return mapper.due(changes.now()).stream().filter(
                row -> mapper.claim(row.versionId(), row.environment(), row.retryAt(), changes.now().plus(AGAIN)) == 1)
                .map(WalkStays::stay).toList();
    }
}

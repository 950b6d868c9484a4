package dev.paseo.service.place;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Passage;
import dev.paseo.core.text.Word;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.version.Versions;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Tells people what became of deployments: who asked, who decided, whose commits they bring; and of what stopped half
 * way all who may mend it there.
 */
@Component
class PeopleTold {

    private final Notices notices;
    private final Authorship authorship;
    private final Versions versions;
    private final DeploymentMapper mapper;
    private final Accounts accounts;

    PeopleTold(Notices notices, Authorship authorship, Versions versions, DeploymentMapper mapper, Accounts accounts) {
        this.accounts = accounts;
        this.notices = notices;
        this.authorship = authorship;
        this.versions = versions;
        this.mapper = mapper;
    }

    void moved(Place place, Deployment row, DeploymentState deployment) {
        Versions.Version version = versions.byId(row.versionId());
        String what = place.component() + " " + deployment.version() + " in " + place.environment();
        String why = deployment.ending().orElse("");
        switch (deployment.status()) {
            case REJECTED, EXPIRED, OVERTAKEN, WITHDRAWN -> tell(NoticeKind.DECIDED, asked(row), place, row,
                    what + " was " + Word.of(deployment.status()), why);
            case DEPLOYING -> {
                if (row.status() == DeploymentStatus.WAITING) {
                    tell(NoticeKind.DECIDED, asked(row), place, row, what + " goes ahead", "Its gate is open.");
                }
            }
            case REMOVED -> {
                if (deployment.kind() == Kind.PREVIEW) {
                    tell(NoticeKind.PREVIEW, authors(row, version), place, row,
                            "The preview of " + version.branch() + " was removed", why);
                } else {
                    tell(NoticeKind.DECIDED, asked(row), place, row, what + " was removed", why);
                }
            }
            case FAILED, UNDONE, STOPPED -> fell(place, row, deployment, version, what);
            case LIVE -> isLive(place, row, deployment, version, what);
            default -> {}
        }
        tellFollowers(place, row, deployment, what);
    }

    /** How it ended, or that it is live. */
    private void tellFollowers(Place place, Deployment row, DeploymentState deployment, String what) {
        if (deployment.status() == row.status() || deployment.status() == DeploymentStatus.REPLACED
                || deployment.status().open()) {
            return;
        }
        String title = what + switch (deployment.status()) {
            case LIVE -> " is live";
            case FAILED, STOPPED -> " " + Word.of(deployment.status());
            default -> " was " + Word.of(deployment.status());
        };
        String why = deployment.ending().orElse(title + ".");
        notices.tellFollowers(
                new Notices.Followed(place.componentId(), place.environmentId(), place.environment(), row.id()),
                Notices.Said.of(NoticeKind.FOLLOWED, place.component(), title, why, "/deployments/" + row.id(),
                        "deployment " + row.id() + " " + title));
    }

    private void fell(Place place, Deployment row, DeploymentState deployment, Versions.Version version, String what) {
        Set<String> people = new HashSet<>(asked(row));
        people.addAll(authors(row, version));
        if (deployment.status() == DeploymentStatus.STOPPED) {
            people.addAll(whoMay(Action.ROLL_BACK, place));
        }
        String how = switch (deployment.status()) {
            case STOPPED -> " stopped half way: somebody has to act";
            case UNDONE -> " was undone";
            default -> " failed";
        };
        tell(NoticeKind.DEPLOYMENT_FAILED, people, place, row, what + how, deployment.ending().orElse(""));
    }

    private void isLive(Place place, Deployment row, DeploymentState deployment, Versions.Version version,
            String what) {
        if (deployment.kind() == Kind.PREVIEW) {
            String shown = place.component() + " " + version.number();
            tell(NoticeKind.PREVIEW, authors(row, version), place, row,
                    "Your preview of " + version.branch() + " is ready",
                    place.url().map(url -> url + " shows " + shown + ".")
                            .orElse(shown + " is live in " + place.environment() + "."));
        }
        List<String> route = version.route().environments();
        if (deployment.kind() == Kind.PROMOTION && !route.isEmpty() && route.getLast().equals(place.environment())) {
            tell(NoticeKind.COMMIT_LIVE, authors(row, version), place, row, what + " is live", version.commit()
                    .map(commit -> "Your commits up to " + commit.substring(0, Math.min(8, commit.length()))
                            + " are live.")
                    .orElse(""));
        }
    }

    /** A test of what is live failed: its authors are told, who asked for it, and all who may deploy it there again. */
    void testFailed(Place place, Deployment row, String reason) {
        Set<String> people = new HashSet<>(asked(row));
        Versions.Version version = versions.byId(row.versionId());
        people.addAll(authors(row, version));
        people.addAll(whoMay(Action.PROMOTE, place));
        tell(NoticeKind.STAYS, people, place, row,
                place.component() + " " + version.number() + " does not go on from " + place.environment(),
                Passage.stays(reason));
    }

    /** It went live within a day of something that was loosened: who did that is told, and all who may review it. */
    void loosened(Place place, Deployment row, Loosenings.Loosened loosened) {
        Set<String> people = new HashSet<>(whoMay(Action.DECIDE, place));
        people.add(loosened.by());
        String what = place.component() + " " + versions.byId(row.versionId()).number() + " in " + place.environment();
        tell(NoticeKind.LOOSENED, people, place, row, what + " is to be reviewed",
                "It went live within a day of what " + loosened.by() + " loosened: " + loosened.what()
                        + ". Somebody else than " + loosened.by() + " looks at it within three days.");
    }

    private Set<String> whoMay(Action action, Place place) {
        return accounts.people().stream()
                .filter(person -> person.may(action, Optional.of(place.component()), Optional.of(place.environment())))
                .map(Person::name).collect(Collectors.toSet());
    }

    private Set<String> asked(Deployment row) {
        return row.requestedBy() == null ? Set.of() : Set.of(row.requestedBy());
    }

    private Set<String> authors(Deployment row, Versions.Version version) {
        Optional<String> before = Optional.ofNullable(mapper.byId(row.id()).orElseThrow().replacesId())
                .flatMap(mapper::byId).map(other -> versions.byId(other.versionId())).flatMap(Versions.Version::commit);
        return version
                .commit().map(commit -> authorship.behind(version.componentId(), before, commit)
                        .map(Authorship.Behind::accounts).orElse(Set.of()))
                .orElseGet(() -> authorship.stated(version.id()).accounts());
    }

    private void tell(NoticeKind event, Set<String> people, Place place, Deployment row, String title, String why) {
        notices.tell(people, Notices.Said.of(event, place.component(), title, why.isEmpty() ? title + "." : why,
                "/deployments/" + row.id(), "deployment " + row.id() + " " + title));
    }
}

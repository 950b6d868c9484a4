package dev.paseo.service.gate;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Gate;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Ruling;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Loads what a gate is judged on, and judges it. */
@Component
public class Gates {

    /** A deployment at a gate; {@code requester} is empty for an automatic one. */
    public record AtGate(long deployment, Environments.Place place, Versions.Sealed version, Optional<Versions.Sealed> live, String requester,
            Instant requestedAt, Kind kind) {}

    /** Authors are not known yet: they have to be learned outside the transaction first. */
    public static final class AuthorsUnknown extends RuntimeException {
        AuthorsUnknown() {
            super("the authors of what is proposed are not known yet");
        }
    }

    private final RulingMapper mapper;
    private final Environments environments;
    private final Accounts accounts;
    private final Authorship authorship;
    private final Sources sources;

    /** Where the parts of a subject come from. */
    @Component
    record Sources(Secrets secrets, ServiceClock clock, Restraints restraints) {}

    Gates(RulingMapper mapper, Environments environments, Accounts accounts, Authorship authorship, Sources sources) {
        this.mapper = mapper;
        this.environments = environments;
        this.accounts = accounts;
        this.authorship = authorship;
        this.sources = sources;
    }

    public Verdict judge(AtGate at) {
        return Gate.judge(criteria(at), facts(at), sources.clock().now());
    }

    private List<Criterion> criteria(AtGate at) {
        List<Criterion> criteria = new ArrayList<>(environments.byId(at.place().environmentId()).rules().entry(at.kind()));
        GateFacts.Around around = around(at);
        around.held().ifPresent(held -> criteria.add(new Criterion.NotHeld()));
        around.closed().ifPresent(closed -> criteria.add(new Criterion.NotClosed()));
        if (!around.requirements().isEmpty()) {
            criteria.add(new Criterion.Requires());
        }
        return criteria;
    }

    private GateFacts.Around around(AtGate at) {
        return sources.restraints().around(at.place(), at.version(), at.kind());
    }

    /** The digest of what an approval would approve now. */
    public String subject(AtGate at) {
        Environments.Known environment = environments.byId(at.place().environmentId());
        List<String> names = at.version().recipe().map(recipe -> recipe.secrets()).orElse(List.of());
        long secrets = sources.secrets().revisionsWithHosts(names, at.place().componentId(), at.place().environmentId()).values().stream()
                .mapToLong(Long::longValue).max().orElse(0);
        return new Subject(at.version().digest(), at.place().settingsRevision(), secrets, environment.rulesRevision(),
                at.place().liveDeployment().orElse(0L)).digest();
    }

    private GateFacts facts(AtGate at) {
        Map<String, Set<String>> members = new HashMap<>();
        for (Criterion criterion : criteria(at)) {
            if (criterion instanceof Criterion.Approvals approvals) {
                members.put(approvals.from(), accounts.members(approvals.from()));
            }
        }
        Set<String> authors = at.version().commit().map(commit -> authorship.accounts(at.version().componentId(),
                at.live().flatMap(Versions.Sealed::commit), commit).orElseThrow(AuthorsUnknown::new)).orElseGet(() -> authorship.stated(at.version().id()));
        return new GateFacts(subject(at), at.requester(), authors, members, environments.passed(at.version().id()),
                at.version().branch(), at.version().trusted(), at.requestedAt(), rulings(at.deployment()), around(at));
    }

    public List<Ruling> rulings(long deployment) {
        return mapper.of(deployment).stream().map(row -> new Ruling(row.by(), row.yes(), row.comment(), row.subject(), row.at())).toList();
    }

    /** Why this person may not decide here, if so. */
    public Optional<String> refusal(AtGate at, String person) {
        GateFacts facts = facts(at);
        List<Optional<String>> refusals = criteria(at).stream().filter(Criterion.Approvals.class::isInstance)
                .map(criterion -> Gate.refusal((Criterion.Approvals) criterion, facts, person)).toList();
        if (refusals.isEmpty()) {
            return Optional.of(at.place().environment() + " asks nobody to decide");
        }
        return refusals.stream().anyMatch(Optional::isEmpty) ? Optional.empty() : refusals.getFirst();
    }

    public boolean needsComment(AtGate at) {
        return criteria(at).stream().anyMatch(criterion -> criterion instanceof Criterion.Approvals approvals && approvals.commentRequired());
    }

    /** Writes a ruling down, in the transaction under way. */
    public void rule(AtGate at, long account, boolean yes, String comment) {
        mapper.add(at.deployment(), account, yes, comment, subject(at), sources.clock().now());
    }
}

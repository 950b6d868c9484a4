package dev.paseo.service.outside;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.gate.Criterion;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Those outside who are asked at gates: the secret that questions are signed with, and their answers. */
@RestController
class OutsideController {

    /** The secret, told this once. */
    record OutsideSecretView(String secret) {}

    record AnswerFromOutside(boolean yes, Optional<String> words) {}

    private final OutsideAsking asking;
    private final Environments environments;
    private final Secrets secrets;
    private final Changes changes;

    OutsideController(OutsideAsking asking, Environments environments, Secrets secrets, Changes changes) {
        this.asking = asking;
        this.environments = environments;
        this.secrets = secrets;
        this.changes = changes;
    }

    /** Makes a new secret with which questions of this criterion are signed, per Standard Webhooks. */
    @PostMapping("/api/v1/environments/{name}/outside/{criterion}/secret")
    @ResponseStatus(HttpStatus.CREATED)
    OutsideSecretView secret(@AuthenticationPrincipal Person person, @PathVariable String name,
            @PathVariable String criterion) {
        Permission.require(person, Action.SET_SECRET, "set who may answer from outside for " + name, Optional.empty(),
                Optional.of(name));
        Environments.Environment known = environments.named(name);
        boolean there = known.rules().everyGate().flatMap(gate -> gate.outside().stream()).map(Criterion.Outside::name)
                .anyMatch(criterion::equals);
        if (!there) {
            throw Refusal.notFound("The gate of " + name + " asks nobody named " + criterion);
        }
        byte[] key = new byte[24];
        new SecureRandom().nextBytes(key);
        String secret = "whsec_" + Base64.getEncoder().encodeToString(key);
        changes.run(() -> {
            secrets.set(OutsideAsking.secretName(name, criterion), secret, Secrets.Scope.of(0, 0),
                    OptionalLong.of(person.id()));
            changes.record(AuditTrail.Entry.of(person.name(), "secret of outside set", criterion).in(name));
        });
        return new OutsideSecretView(secret);
    }

    /** An answer, by the token that came with the question; it counts once. */
    @PostMapping("/hooks/answers/{token}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answer(@PathVariable String token, @RequestBody AnswerFromOutside answer) {
        asking.answer(token, answer.yes(), answer.words().orElse("").strip());
    }
}

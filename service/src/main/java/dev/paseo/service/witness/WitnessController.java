package dev.paseo.service.witness;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.permission.Permission;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What others keep so that the trail can be held against it. */
@RestController
@RequestMapping("/api/v1/audit")
class WitnessController {

    /**
     * The keys that the service signs with.
     *
     * @param text as {@code paseo audit key} prints it, and {@code --key} reads it: the first key
     *             (SubjectPublicKeyInfo, RFC 8410, in Base64), and below it a line for each that took its place: key,
     *             moment, and signature by the key before
     * @param keys the first one first; the last one signs
     */
    record KeysView(String text, List<KeyView> keys) {

        static KeysView of(KeyRing ring) {
            return new KeysView(ring.text(), ring.terms().stream()
                    .map(term -> new KeyView(term.key(), term.print(), term.since(), term.until())).toList());
        }
    }

    /**
     * A key.
     *
     * @param key    in Base64
     * @param sha256 what it is told by: SHA-256 over the key, in hexadecimal
     * @param since  absent: it is the first
     * @param until  when another took its place; absent: it signs
     */
    record KeyView(String key, String sha256, Optional<Instant> since, Optional<Instant> until) {}

    private final Renewals renewals;
    private final Witnesses witnesses;

    WitnessController(Renewals renewals, Witnesses witnesses) {
        this.renewals = renewals;
        this.witnesses = witnesses;
    }

    /** The keys by which heads of the trail and statements are signed, for keeping them elsewhere. */
    @GetMapping("/keys")
    KeysView keys(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return KeysView.of(renewals.ring());
    }

    record RenewalBody(String reason) {}

    /** Puts a new key in the place of the one that signs, which signs the new one and is gone then. */
    @PostMapping("/keys")
    KeysView renew(@AuthenticationPrincipal Person person, @RequestBody RenewalBody request) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "renew the key that signs");
        return KeysView.of(renewals.renew(request.reason(), person.name()));
    }

    /** Who else keeps heads of the trail: receivers, and a file elsewhere. */
    @GetMapping("/witnesses")
    Witnesses.WitnessesView witnesses(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.VERIFY_AUDIT);
        return witnesses.view();
    }
}

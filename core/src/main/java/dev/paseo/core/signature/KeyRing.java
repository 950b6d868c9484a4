package dev.paseo.core.signature;

import java.nio.charset.StandardCharsets;
import java.security.PublicKey;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The public keys that a service signed with, one after the other: each but the first was signed by the one before it.
 * Whoever trusts one of them trusts those behind it.
 *
 * @param first    the key that nothing leads to, as {@link Ed25519#key} reads it
 * @param renewals in their order
 */
public record KeyRing(String first, List<Renewal> renewals) {

    /** So long after its renewal a key still counts: replicas that were just signing, and whose clocks differ. */
    public static final Duration OVERLAP = Duration.ofMinutes(1);

    /**
     * A key takes the place of the one before.
     *
     * @param key       the new one, as {@link Ed25519#key} reads it
     * @param signature by the one before, over {@link #bytes}
     */
    public record Renewal(String key, Instant at, String signature) {

        /** What the key before it signs. */
        public static byte[] bytes(String before, String key, Instant at) {
            return ("paseo key renewal 1\n" + before + "\n" + key + "\n" + at + "\n").getBytes(StandardCharsets.UTF_8);
        }

        private boolean follows(String before) {
            return Ed25519.good(Ed25519.key(before), bytes(before, key, at), signature);
        }
    }

    /**
     * A key with the time that it is in force.
     *
     * @param read  the key itself
     * @param since empty: it is the first
     * @param until empty: it is the newest
     */
    public record Term(String key, PublicKey read, Optional<Instant> since, Optional<Instant> until) {

        public String print() {
            return Ed25519.print(read);
        }

        private boolean counts(Instant at) {
            return until.isEmpty() || !at.isAfter(until.get().plus(OVERLAP));
        }

        private boolean signed(byte[] bytes, String signature) {
            return Ed25519.good(read, bytes, signature);
        }
    }

    /** @throws IllegalArgumentException where one is no key, or was not signed by the one before */
    public KeyRing {
        renewals = List.copyOf(renewals);
        Ed25519.key(first);
        String before = first;
        for (Renewal renewal : renewals) {
            Ed25519.key(renewal.key());
            if (!renewal.follows(before)) {
                throw new IllegalArgumentException("the key of " + renewal.at() + " is not signed by the one before");
            }
            before = renewal.key();
        }
    }

    /**
     * Reads what {@link #text} writes: the first key, and a line for each renewal, with key, moment and signature. One
     * key by itself is such a text.
     *
     * @throws IllegalArgumentException where it is none, as a sentence
     */
    public static KeyRing of(String text) {
        List<String> lines = text.strip().lines().toList();
        if (lines.isEmpty()) {
            throw new IllegalArgumentException("it is empty");
        }
        return new KeyRing(lines.getFirst().strip(), lines.stream().skip(1).map(KeyRing::renewal).toList());
    }

    private static Renewal renewal(String line) {
        String[] parts = line.strip().split(" ");
        try {
            if (parts.length == 3) {
                return new Renewal(parts[0], Instant.parse(parts[1]), parts[2]);
            }
        } catch (DateTimeException noMoment) {
            // Told below.
        }
        throw new IllegalArgumentException("a line below the first should have a key, a moment and a signature");
    }

    /** As it is kept and printed, without an end of line. */
    public String text() {
        return first + renewals.stream().map(each -> "\n" + each.key() + " " + each.at() + " " + each.signature())
                .collect(Collectors.joining());
    }

    /** The same with one more at its end. */
    public KeyRing with(Renewal renewal) {
        List<Renewal> more = new ArrayList<>(renewals);
        more.add(renewal);
        return new KeyRing(first, more);
    }

    /** All keys, the first one first. */
    public List<Term> terms() {
        List<Term> terms = new ArrayList<>();
        String key = first;
        Optional<Instant> since = Optional.empty();
        for (Renewal renewal : renewals) {
            terms.add(new Term(key, Ed25519.key(key), since, Optional.of(renewal.at())));
            key = renewal.key();
            since = Optional.of(renewal.at());
        }
        terms.add(new Term(key, Ed25519.key(key), since, Optional.empty()));
        return terms;
    }

    /** The newest key. */
    public String newest() {
        return renewals.isEmpty() ? first : renewals.getLast().key();
    }

    /** Which of the keys signed this, whenever; the newest of them. */
    public Optional<Term> signer(byte[] bytes, String signature) {
        return terms().reversed().stream().filter(term -> term.signed(bytes, signature)).findFirst();
    }

    /** Whether a key signed this that was still in force when, as what is signed says. */
    public boolean good(byte[] bytes, Instant at, String signature) {
        return terms().stream().anyMatch(term -> term.counts(at) && term.signed(bytes, signature));
    }

    /** What is believed of what a service names: all of it, or from a key on that somebody knows from elsewhere. */
    public KeyRing believed(Optional<KeyRing> known) {
        return known.map(ring -> from(ring).orElse(ring)).orElse(this);
    }

    /**
     * From the first key on that both have, with all that either knows of what follows; empty where they have none in
     * common, or where another key follows in the one than in the other: somebody who had stolen a key renewed it.
     */
    public Optional<KeyRing> from(KeyRing trusted) {
        List<String> keys = keys();
        return trusted.keys().stream().filter(keys::contains).findFirst().flatMap(key -> {
            KeyRing here = behind(key);
            KeyRing there = trusted.behind(key);
            KeyRing shorter = here.renewals.size() < there.renewals.size() ? here : there;
            KeyRing longer = shorter.equals(here) ? there : here;
            return longer.keys().subList(0, shorter.keys().size()).equals(shorter.keys()) ? Optional.of(longer)
                    : Optional.empty();
        });
    }

    private KeyRing behind(String key) {
        return new KeyRing(key, renewals.subList(keys().indexOf(key), renewals.size()));
    }

    private List<String> keys() {
        return Stream.concat(Stream.of(first), renewals.stream().map(Renewal::key)).toList();
    }
}

package dev.paseo.service.origin;

import dev.paseo.core.origin.SignedEnvelope;
import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.signature.ServiceKey;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.util.ConcurrentLruCache;

/** Makes each statement once, signs it and keeps it. */
@Component
class Statements {

    /** An envelope as DSSE 1.0 writes it. */
    record EnvelopeView(String payloadType, String payload, List<SignatureView> signatures) {

        /**
         * One signature.
         *
         * @param keyid SHA-256 over the public key (SubjectPublicKeyInfo), in hexadecimal; a hint
         * @param sig   Ed25519 (RFC 8032) over the pre-authentication encoding, in Base64
         */
        record SignatureView(String keyid, String sig) {}

        SignedEnvelope envelope() {
            return new SignedEnvelope(payloadType, Base64.getDecoder().decode(payload), signatures.stream()
                    .map(each -> new SignedEnvelope.Signed(each.keyid(), each.sig())).toList());
        }
    }

    /** What was asked of a signature: everything that the answer depends on. */
    private record Asked(EnvelopeView envelope, KeyRing ring) {}

    /** So many answers are kept at hand: verifying takes longer than all else that is told of a file. */
    private static final int KEPT = 200;

    private final ConcurrentLruCache<Asked, Boolean> answers = new ConcurrentLruCache<>(KEPT,
            asked -> asked.envelope().envelope().good(asked.ring()));
    private final StatementMapper mapper;
    private final Provenance provenance;
    private final ServiceKey key;
    private final Json json;
    private final ServiceClock clock;

    Statements(StatementMapper mapper, Provenance provenance, ServiceKey key, Json json, ServiceClock clock) {
        this.mapper = mapper;
        this.provenance = provenance;
        this.key = key;
        this.json = json;
        this.clock = clock;
    }

    /** Of a version: how it came about. */
    EnvelopeView ofVersion(long version) {
        return ofVersion(version, mapper.envelope(version, null));
    }

    /**
     * Of a version: how it came about.
     *
     * @param kept the statement as it was read; none: it is made where there is none yet
     */
    EnvelopeView ofVersion(long version, Optional<String> kept) {
        return json.read(kept.orElseGet(() -> {
            mapper.keep(version, null, sign(provenance.ofVersion(version)), clock.now());
            return mapper.envelope(version, null).orElseThrow();
        }), EnvelopeView.class);
    }

    /** Of a deployment that is live or was: that it went live. */
    EnvelopeView ofDeployment(long deployment) {
        return json.read(mapper.envelope(null, deployment).orElseGet(() -> {
            mapper.keep(null, deployment, sign(provenance.ofDeployment(deployment)), clock.now());
            return mapper.envelope(null, deployment).orElseThrow();
        }), EnvelopeView.class);
    }

    /** Whether one of the service's keys signed it as it is. */
    boolean holds(EnvelopeView envelope) {
        return answers.get(new Asked(envelope, key.ring()));
    }

    /** The public keys, as {@link KeyRing#of} reads them. */
    String key() {
        return key.ring().text();
    }

    private String sign(Object statement) {
        byte[] payload = json.write(statement).getBytes(StandardCharsets.UTF_8);
        return json.write(new EnvelopeView(SignedEnvelope.IN_TOTO, Base64.getEncoder().encodeToString(payload),
                List.of(new EnvelopeView.SignatureView(key.ring().terms().getLast().print(),
                        key.sign(SignedEnvelope.signed(SignedEnvelope.IN_TOTO, payload))))));
    }
}

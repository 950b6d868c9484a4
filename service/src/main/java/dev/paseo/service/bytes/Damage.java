package dev.paseo.service.bytes;

import dev.paseo.service.change.Changes;
import dev.paseo.service.audit.AuditTrail;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** What was found damaged: told once and loudly, counted, and mended when the same bytes arrive again. */
@Component
public class Damage {

    /** Whoever tells people. */
    public interface Hearer {
        /**
         * In the transaction that notes the damage.
         *
         * @param versions those that need the bytes, such as {@code daylight-api 1.4.1}
         */
        void damaged(DamagedBytes damage, List<String> versions);
    }

    private static final Logger LOG = LoggerFactory.getLogger(Damage.class);

    private final ByteMapper mapper;
    private final Changes changes;
    private final ObjectProvider<Hearer> hearers;

    Damage(ByteMapper mapper, Changes changes, ObjectProvider<Hearer> hearers) {
        this.mapper = mapper;
        this.changes = changes;
        this.hearers = hearers;
    }

    /** {@code paseo_bytes_damaged}: files that are damaged as far as is known. */
    @Autowired
    void count(MeterRegistry meters) {
        meters.gauge("paseo.bytes.damaged", mapper, ByteMapper::damagedCount);
    }

    void found(DamagedBytes damage) {
        changes.run(() -> {
            if (mapper.damaged(damage.wanted(), damage.found(), changes.now()) == 0) {
                return;
            }
            List<String> versions = mapper.versionsWith(damage.wanted());
            LOG.error("{}; needed by {}: put the right bytes back from a backup, or seal these versions anew",
                    damage.getMessage(), versions);
            changes.record(AuditTrail.Entry.of("paseo", "kept bytes are damaged", damage.wanted())
                    .with("found", damage.found()).with("versions", String.join(", ", versions)));
            hearers.forEach(hearer -> hearer.damaged(damage, versions));
        });
    }

    /** The right bytes are there again. */
    void mended(String digest) {
        if (mapper.damagedCount() == 0) {
            return;
        }
        changes.run(() -> {
            if (mapper.mended(digest) == 1) {
                changes.record(AuditTrail.Entry.of("paseo", "kept bytes are mended", digest));
            }
        });
    }
}

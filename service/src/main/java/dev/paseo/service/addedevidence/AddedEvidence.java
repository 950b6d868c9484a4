package dev.paseo.service.addedevidence;

import dev.paseo.core.access.Person;
import dev.paseo.core.evidence.SignOff;
import dev.paseo.core.text.Sha256;
import dev.paseo.core.text.Size;
import dev.paseo.language.NearestName;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Adds evidence to sealed versions; none is ever changed or taken away, and gates that wait see it at once. */
@Component
class AddedEvidence {

    /** Kinds of files, the reports among them that are read. */
    static final List<String> KINDS = List.of(Evidence.TESTS, Evidence.COVERAGE, Evidence.FINDINGS, Evidence.PARTS,
            "signature", "statement");
    private static final int LARGEST = 64_000_000;
    private static final int MOST = 500;
    private static final int LONGEST_NAME = 100;
    private static final int LONGEST_WORDS = 2_000;

    private final Evidence evidence;
    private final KeptBytes bytes;
    private final Environments environments;
    private final Stretches gates;
    private final Changes changes;

    AddedEvidence(Evidence evidence, KeptBytes bytes, Environments environments, Stretches gates, Changes changes) {
        this.evidence = evidence;
        this.bytes = bytes;
        this.environments = environments;
        this.gates = gates;
        this.changes = changes;
    }

    /**
     * Adds a file; the same one again, by whomever, changes nothing.
     *
     * @return its SHA-256
     */
    String file(Versions.Version version, Optional<String> environment, String kind, InputStream in, Person by) {
        if (!KINDS.contains(kind)) {
            throw Refusal
                    .notFound("There is no kind of evidence " + kind + NearestName.hint(kind, KINDS) + "; there are "
                            + String.join(", ", KINDS));
        }
        Optional<Long> place = place(version, environment);
        ByteStore.StoredBytes kept = bytes.keep(in, LARGEST, changes.now());
        Object summary = switch (kind) {
            case Evidence.TESTS, Evidence.COVERAGE, Evidence.FINDINGS, Evidence.PARTS -> evidence.readFile(kind,
                    kept.digest());
            default -> Map.of("size", Size.words(kept.size()));
        };
        add(new Evidence.Added(version.id(), place, kind, kept.digest(), summary, by.id()), version, environment, by,
                "");
        return kept.digest();
    }

    /** Somebody, who may have no account, says something about it. */
    void signOff(Versions.Version version, Optional<String> environment, SignOff said, Person by) {
        if (said.name().isBlank() || said.name().length() > LONGEST_NAME) {
            throw Refusal.invalid("/name", "should be whose word it is, in 1 to " + LONGEST_NAME + " characters");
        }
        if (said.words().isBlank() || said.words().length() > LONGEST_WORDS) {
            throw Refusal.invalid("/words", "should be what is said, in 1 to " + LONGEST_WORDS + " characters");
        }
        add(new Evidence.Added(version.id(), place(version, environment), Evidence.SIGN_OFF,
                Sha256.hex(said.name() + "\n" + said.words()), said, by.id()), version, environment, by,
                said.name() + ": " + said.words());
    }

    private Optional<Long> place(Versions.Version version, Optional<String> environment) {
        return environment.map(name -> environments.place(version.component(), name).environmentId());
    }

    private void add(Evidence.Added added, Versions.Version version, Optional<String> environment, Person by,
            String words) {
        changes.run(() -> {
            if (evidence.added(version.id()).size() >= MOST) {
                throw Refusal.conflict(version.component() + " " + version.number() + " has " + MOST
                        + " pieces of added evidence: no more are taken");
            }
            if (!evidence.add(added)) {
                return;
            }
            changes.record(AuditTrail.Entry.of(by.name(), "evidence added", version.component() + " "
                    + version.number()).in(environment.orElse("")).because(words).with("kind", added.kind())
                    .with("sha256", added.file()));
            gates.wakeVersion(version.id());
            changes.publish("version", version.component() + " " + version.number());
        });
    }
}

package dev.paseo.service.secret;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** Secrets by name, with the narrowest scope first, and their revisions. A scope of 0 means everywhere. */
@Component
public class Secrets {

    /** Shorter values cannot be masked without masking half the log. */
    public static final int SHORTEST = 6;
    private static final int LONGEST = 16_000;

    private final SecretMapper mapper;
    private final Envelope envelope;
    private final ServiceClock clock;
    private final Transactions transactions;

    Secrets(SecretMapper mapper, Envelope envelope, ServiceClock clock, Transactions transactions) {
        this.mapper = mapper;
        this.envelope = envelope;
        this.clock = clock;
        this.transactions = transactions;
    }

    /** Sets a new revision of a value. */
    public void set(String name, String value, long component, long environment, OptionalLong by) {
        if (value.length() < SHORTEST || value.length() > LONGEST) {
            throw Refusal.invalid("/value", "the value of a secret has " + SHORTEST + " to " + LONGEST
                    + " signs: a shorter one could not be masked in logs");
        }
        Envelope.Sealed sealed = envelope.seal(value);
        transactions.run(() -> {
            mapper.add(name, component, environment);
            long secret = mapper.lock(name, component, environment);
            mapper.addRevision(new SecretMapper.NewRevision(secret, sealed.ciphertext(), sealed.dataKey(),
                    by.isPresent() ? by.getAsLong() : null, clock.now()));
        });
    }

    /** Opens a secret to a component's files. */
    public void open(long component, String name) {
        mapper.open(component, name);
    }

    /** The names of these that the component was not given or that have no value there. */
    public List<String> missing(List<String> names, long component, long environment) {
        return names.stream().filter(name -> mapper.opened(component, name) == 0
                || mapper.newest(name, component, environment).isEmpty()).toList();
    }

    /** Name to the revision that is in force there now; those without a value are left out. */
    public Map<String, Long> revisions(List<String> names, long component, long environment) {
        Map<String, Long> revisions = new LinkedHashMap<>();
        names.forEach(name -> mapper.newest(name, component, environment).ifPresent(row -> revisions.put(name, row.id())));
        return revisions;
    }

    /** Gives a preview what is set for its template: these names, and nothing that is set elsewhere. */
    public void copy(List<String> names, long component, long template, long environment) {
        transactions.run(() -> names.forEach(name -> mapper.newestOf(name, component, template).ifPresent(row -> {
            mapper.add(name, component, environment);
            long secret = mapper.lock(name, component, environment);
            mapper.addRevision(new SecretMapper.NewRevision(secret, row.ciphertext(), row.dataKey(), null, clock.now()));
        })));
    }

    /** The values of these revisions. */
    public Map<String, String> values(Map<String, Long> revisions) {
        Map<String, String> values = new LinkedHashMap<>();
        revisions.forEach((name, id) -> mapper.revision(id)
                .ifPresent(row -> values.put(name, envelope.open(row.ciphertext(), row.dataKey()))));
        return values;
    }

    public Optional<String> value(String name, long component) {
        return mapper.newest(name, component, 0).map(row -> envelope.open(row.ciphertext(), row.dataKey()));
    }
}

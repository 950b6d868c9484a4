package dev.paseo.service.secret;

import dev.paseo.service.change.Changes;
import dev.paseo.core.secret.Lack;
import dev.paseo.core.secret.ValueReach;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Secrets by name, with the narrowest scope first, and their revisions. A scope of 0 means everywhere. */
@Component
public class Secrets {

    /** Shorter values cannot be masked without masking half the log. */
    public static final int SHORTEST = 6;
    private static final int LONGEST = 16_000;

    private final SecretMapper mapper;
    private final Envelope envelope;
    private final Changes changes;

    Secrets(SecretMapper mapper, Envelope envelope, Changes changes) {
        this.mapper = mapper;
        this.envelope = envelope;
        this.changes = changes;
    }

    /** A value cannot be had: what is stored is not what was sealed. */
    public static final class Unopened extends IllegalStateException {
        private static final long serialVersionUID = 1L;

        Unopened(String why) {
            super("a secret cannot be opened: " + why + "; set it again, and look at who has changed the database");
        }
    }

    /** Where a value holds; 0 means everywhere. Of one host only together with component and environment. */
    public record Scope(long component, long environment, long host) {
        public static Scope of(long component, long environment) {
            return new Scope(component, environment, 0);
        }
    }

    /** What is set where, and who set it last; {@code revisions} counts them. */
    public record SetSecret(String name, Optional<String> component, Optional<String> environment,
            Optional<String> host,
            int revisions, Optional<String> by, Instant at) {}

    /** Sets a new revision of a value. */
    public void set(String name, String value, Scope scope, OptionalLong by) {
        check(value);
        changes.run(() -> add(name, value, scope, by));
    }

    /** Refuses what no secret's value can be. */
    public static void check(String value) {
        if (value.length() < SHORTEST || value.length() > LONGEST) {
            throw Refusal.invalid("/value", "The value of a secret has " + SHORTEST + " to " + LONGEST
                    + " characters: a shorter one could not be masked in logs");
        }
    }

    /** Where values of a name are set, or may be by now. */
    public List<ValueReach> reaches(String name) {
        return mapper.reaches(name).stream().map(row -> new ValueReach(Optional.ofNullable(row.component()),
                Optional.ofNullable(row.environment()), Optional.ofNullable(row.host()))).toList();
    }

    /** A value may be set there from now on; there is none yet. */
    public void reserve(String name, Scope scope) {
        mapper.add(name, scope.component(), scope.environment(), scope.host());
    }

    /**
     * In the transaction under way. The value opens as this revision of this secret in this scope, and as nothing else.
     */
    private void add(String name, String value, Scope scope, OptionalLong by) {
        mapper.add(name, scope.component(), scope.environment(), scope.host());
        long secret = mapper.lock(name, scope.component(), scope.environment(), scope.host());
        Envelope.Sealed sealed = envelope.seal(value, SecretMapper.RevisionRow.bound(name, scope.component(),
                scope.environment(), scope.host(), mapper.count(secret) + 1));
        mapper.addRevision(new SecretMapper.NewRevision(secret, sealed.ciphertext(), sealed.dataKey(),
                by.isPresent() ? by.getAsLong() : null, changes.now()));
    }

    private String open(SecretMapper.RevisionRow row) {
        return envelope.open(row.ciphertext(), row.dataKey(), row.bound());
    }

    /**
     * Binds what an earlier version sealed without saying what it is of; done once for each value, at the first start.
     */
    @EventListener(ApplicationStartedEvent.class)
    void bind() {
        changes.run(() -> {
            for (List<SecretMapper.RevisionRow> rows = mapper.unbound(); !rows.isEmpty(); rows = mapper.unbound()) {
                rows.forEach(row -> {
                    Envelope.Sealed sealed = envelope.seal(envelope.open(row.ciphertext(), row.dataKey(), ""),
                            row.bound());
                    mapper.bind(row.id(), sealed.ciphertext(), sealed.dataKey());
                });
            }
        });
    }

    /** Deletes every revision of a component's value. */
    public void forget(String name, long component) {
        mapper.forget(name, component);
    }

    public List<SetSecret> all() {
        return mapper.all().stream()
                .map(row -> new SetSecret(row.name(), Optional.ofNullable(row.component()),
                        Optional.ofNullable(row.environment()),
                        Optional.ofNullable(row.host()), row.revisions(), Optional.ofNullable(row.by()), row.at()))
                .toList();
    }

    /** Seals every value's key under a new key of the service; how many. The old key's file stays, for old backups. */
    public int rotate() {
        return changes.in(() -> {
            envelope.renew();
            int count = 0;
            List<SecretMapper.RevisionRow> rows = mapper.after(0);
            while (!rows.isEmpty()) {
                rows.forEach(row -> mapper.wrap(row.id(), envelope.wrapAgain(row.dataKey())));
                count += rows.size();
                rows = mapper.after(rows.getLast().id());
            }
            return count;
        });
    }

    /** The entry of a grant, or of one taken back, with what the component is given after it. */
    public AuditTrail.Entry stating(AuditTrail.Entry entry, long component) {
        return GrantStates.into(entry, component, mapper);
    }

    /** Takes a secret from a component's files; whether it had it. */
    public boolean close(long component, String name) {
        mapper.lockComponent(component);
        return mapper.close(component, name) == 1;
    }

    /** The names that a component's files may name. */
    public List<String> given(long component) {
        return mapper.given(component);
    }

    /** Component to the names that its files may name, each with whether its stages are given a value of it. */
    public Map<Long, Map<String, Boolean>> given() {
        return mapper.allOpened().stream().collect(Collectors.groupingBy(SecretMapper.OpenedRow::componentId,
                Collectors.toMap(SecretMapper.OpenedRow::name, SecretMapper.OpenedRow::valued)));
    }

    /** Opens a secret to a component's files. */
    public void open(long component, String name) {
        mapper.lockComponent(component);
        mapper.open(component, name);
    }

    /** Those of these that the component was not given, or that have no value there. */
    public List<Lack> lacks(List<String> names, long component, long environment) {
        return names.stream().flatMap(name -> {
            boolean given = mapper.opened(component, name) > 0;
            return given && mapper.newest(name, component, environment).isPresent() ? Stream.of()
                    : Stream.of(new Lack(name, given));
        }).toList();
    }

    /** The names of these that the component was not given or that have no value there. */
    public List<String> missing(List<String> names, long component, long environment) {
        return lacks(names, component, environment).stream().map(Lack::name).toList();
    }

    /** Name to the revision that is in force there now; those without a value are left out. */
    public Map<String, Long> revisions(List<String> names, long component, long environment) {
        return names.isEmpty() ? Map.of() : revisions(mapper.inForce(names, component, environment));
    }

    /** The same with those of single hosts beside, as {@code NAME@host}. */
    public Map<String, Long> revisionsWithHosts(List<String> names, long component, long environment) {
        return names.isEmpty() ? Map.of() : revisions(mapper.inForceWithHosts(names, component, environment));
    }

    private static Map<String, Long> revisions(List<SecretMapper.InForceRow> rows) {
        Map<String, Long> revisions = new TreeMap<>();
        rows.forEach(row -> revisions.put(row.host() == null ? row.name() : row.name() + "@" + row.host(), row.id()));
        return revisions;
    }

    /** Gives a preview what is set for its template: these names, and nothing that is set elsewhere. */
    public void copy(List<String> names, long component, long template, long environment) {
        changes.run(() -> names.forEach(name -> mapper.newestOf(name, component, template)
                .ifPresent(row -> add(name, open(row), Scope.of(component, environment), OptionalLong.empty()))));
    }

    /** Which of its secret's values one is, who set it and when; never the value. */
    public record Told(int number, Optional<String> by, Instant at) {}

    public Optional<Told> told(long revision) {
        return mapper.told(revision).map(row -> new Told(row.number(), Optional.ofNullable(row.by()), row.at()));
    }

    /** The values of these revisions. */
    public Map<String, String> values(Map<String, Long> revisions) {
        Map<String, String> values = new LinkedHashMap<>();
        revisions.forEach((name, id) -> mapper.revision(id)
                .ifPresent(row -> values.put(name, open(row))));
        return values;
    }

    public Optional<String> value(String name, long component) {
        return mapper.newest(name, component, 0).map(this::open);
    }
}

package dev.paseo.service.store;

import dev.paseo.service.change.Changes;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.arrival.Arrivals;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.DueWork;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.store.StoreMapper.SightingRow;
import dev.paseo.service.store.StoreMapper.StoreRow;
import dev.paseo.service.store.WatchedStore.Sighting;
import dev.paseo.service.store.WatchedStore.Where;
import dev.paseo.service.version.Versions;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * Watches stores for versions that appear in them. What is seen under a name is sealed once, by its digest; when the
 * name points to something else later, that is told, and the version stays what it was.
 */
@Component
public class Stores implements DueWork.Ways<StoreRow> {

    private static final Logger LOG = LoggerFactory.getLogger(Stores.class);
    private static final int AT_ONCE = 16;
    private static final Duration CLAIM = Duration.ofMinutes(15);
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(30);
    private static final Pattern NAME = Pattern.compile("[a-z0-9]+(?:[._/-]+[a-z0-9]+)*");
    private static final Pattern COORDINATE = Pattern.compile("[A-Za-z0-9_-]+(\\.[A-Za-z0-9_-]+)*");

    private final StoreMapper mapper;
    private final Components components;
    private final Arrivals arrivals;
    private final Reaching reaching;
    private final Around around;
    private final Duration every;
    private final DueWork<StoreRow> work = new DueWork<>("store", AT_ONCE, this);
    private final Map<String, String> seenOnce = new ConcurrentHashMap<>();

    /** What stores are reached with. */
    @Component
    record Reaching(Web web, KeptBytes bytes, JsonMapper json, Secrets secrets, Settings settings, Quotas quotas) {}

    /** What a sighting leaves. */
    @Component("storeAround")
    record Around(Changes changes, Json json) {}

    Stores(StoreMapper mapper, Components components, Arrivals arrivals, Reaching reaching, Around around,
            @Value("${paseo.poll:30s}") Duration every) {
        this.mapper = mapper;
        this.components = components;
        this.arrivals = arrivals;
        this.reaching = reaching;
        this.around = around;
        this.every = every;
    }

    long watch(RegisteredComponent component, Where where, Optional<String> login, String by) {
        check(where);
        return around.changes().in(() -> {
            StoreMapper.NewStore row = new StoreMapper.NewStore(component.id(), where,
                    where.kind().name().toLowerCase(Locale.ROOT), around.json().write(where), around.changes().now());
            mapper.add(row);
            login.ifPresent(words -> reaching.secrets().set("PASEO_STORE_" + row.id, words,
                    Secrets.Scope.of(component.id(), 0), OptionalLong.empty()));
            around.changes().record(AuditTrail.Entry.of(by, "store observed", component.name())
                    .with("address", where.address()).with("pattern", where.pattern()));
            return row.id;
        });
    }

    private void check(Where where) {
        switch (where.kind()) {
            case REGISTRY -> {
                reaching.web().allow(where.address());
                require(where.name(), NAME, "/name", "the repository's name, such as park/hut-planner");
            }
            case MAVEN -> {
                reaching.web().allow(where.address());
                require(where.name(), COORDINATE, "/name", "the artifact's id");
                require(where.group(), COORDINATE, "/group", "the group's id");
                where.extension()
                        .ifPresent(extension -> require(where.extension(), COORDINATE, "/extension", "such as jar"));
            }
            case FOLDER -> {
                allowFolder(where.address());
                if (where.pattern().split("\\{version}", -1).length != 2 || where.pattern().contains("/")) {
                    throw Refusal.invalid("/pattern",
                            "A folder's files are named by a pattern with {version} in it once, such as "
                                    + "hut-planner-{version}.tgz");
                }
            }
        }
        if (where.pattern().isBlank() || where.pattern().length() > 200) {
            throw Refusal.invalid("/pattern", "has 1 to 200 characters");
        }
    }

    private static void require(Optional<String> text, Pattern pattern, String pointer, String what) {
        if (text.filter(words -> words.length() <= 200 && pattern.matcher(words).matches()).isEmpty()) {
            throw Refusal.invalid(pointer, "should be " + what + "; got “" + text.orElse("nothing") + "”");
        }
    }

    private void allowFolder(String address) {
        try {
            if (address.startsWith("file:///")) {
                Path real = Path.of(URI.create(address)).toRealPath();
                for (String allowed : reaching.settings().allowedStores()) {
                    if (!allowed.contains("://") && Files.isDirectory(Path.of(allowed))
                            && real.startsWith(Path.of(allowed).toRealPath())) {
                        return;
                    }
                }
            }
        } catch (IOException | IllegalArgumentException missing) {
            throw Refusal.invalid("/address", "There is no folder " + address);
        }
        throw Refusal.notAllowed(
                address + " is not a folder that may be observed; an operator sets the folders in "
                        + "paseo.allowed-stores");
    }

    List<StoreRow> of(long component) {
        return mapper.of(component);
    }

    List<SightingRow> sightings(long store) {
        return mapper.sightings(store);
    }

    Where where(StoreRow row) {
        return around.json().read(row.body(), Where.class);
    }

    void stop(long id, RegisteredComponent component, String by) {
        StoreRow row = mapper.byId(id).filter(each -> each.componentId() == component.id())
                .orElseThrow(() -> Refusal.notFound(component.name() + " observes no store " + id));
        around.changes().run(() -> {
            mapper.dropSightings(id);
            mapper.drop(id);
            around.changes()
                    .record(AuditTrail.Entry.of(by, "store no longer observed", component.name()).with("address",
                            row.address()));
        });
    }

    /** Somebody said that something has arrived: looks soon. */
    public void soon(long component) {
        mapper.soon(component, around.changes().now());
    }

    @Scheduled(fixedDelay = 500)
    void look() {
        work.take(around.changes().now());
    }

    @Override
    public List<StoreRow> due(Instant now) {
        return mapper.due(now);
    }

    @Override
    public boolean claim(StoreRow due, Instant now) {
        return mapper.claim(due.id(), due.nextAt(), now.plus(CLAIM)) == 1;
    }

    @Override
    public void perform(StoreRow row) {
        try {
            look(row, where(row));
            mapper.looked(row.id(), around.changes().now().plus(every), around.changes().now());
        } catch (RuntimeException away) {
            Instant next = around.changes().now().plus(DueWork.pause(every, row.failures() + 1, LONGEST_PAUSE));
            mapper.failed(row.id(), next, cut(String.valueOf(away.getMessage())));
            LOG.warn("the store {} cannot be looked at, again at {}: {}", row.address(), next, away.toString());
        }
    }

    private WatchedStore open(StoreRow row, Where where) {
        RegistryStore.Using using = new RegistryStore.Using(reaching.web(), reaching.bytes(), around.changes(),
                reaching.json());
        return switch (where.kind()) {
            case REGISTRY -> new RegistryStore(where,
                    reaching.secrets().value("PASEO_STORE_" + row.id(), row.componentId()), using);
            case MAVEN -> new MavenStore(where, using);
            case FOLDER -> new FolderStore(where, using);
        };
    }

    private void look(StoreRow row, Where where) {
        WatchedStore store = open(row, where);
        RegisteredComponent component = components.byId(row.componentId());
        Map<String, SightingRow> known = mapper.sightings(row.id()).stream()
                .collect(Collectors.toMap(SightingRow::name, each -> each));
        boolean first = row.lookedAt() == null && !where.existing();
        for (Sighting sighting : store.list(!known.isEmpty())) {
            SightingRow before = known.get(sighting.number());
            if (before != null) {
                moved(row, component, before, sighting);
            } else if (first) {
                mapper.see(row.id(), sighting.number(), sighting.digest(), null,
                        "it was there before the store was observed", around.changes().now());
            } else if (where.kind() != WatchedStore.Kind.FOLDER
                    || sighting.digest().equals(seenOnce.put(row.id() + " " + sighting.number(), sighting.digest()))) {
                seenOnce.remove(row.id() + " " + sighting.number());
                arrived(row, component, store, sighting);
            }
        }
    }

    /** A name that points to something else than when it was seen first: told once. */
    private void moved(StoreRow row, RegisteredComponent component, SightingRow before, Sighting now) {
        String reason = "it was seen as " + before.digest() + " and now is " + now.digest()
                + "; what was sealed stays as it was";
        if (!before.digest().equals(now.digest()) && !reason.equals(before.reason())) {
            around.changes().run(() -> {
                mapper.say(row.id(), now.number(), cut(reason));
                around.changes()
                        .record(AuditTrail.Entry
                                .of("paseo", "store moved a name", component.name() + " " + now.number())
                                .because(cut(reason)).with("store", row.address()));
                around.changes().publish("trigger", component.name());
            });
        }
    }

    private void arrived(StoreRow row, RegisteredComponent component, WatchedStore store, Sighting sighting) {
        reaching.quotas().room(component.id(), 0);
        try {
            Arrivals.checkNumber(sighting.number());
            List<Versions.Artifact> artifacts = store.fetch(sighting);
            reaching.quotas().kept(component.id(), artifacts.stream().mapToLong(Versions.Artifact::size).sum());
            around.changes().run(() -> {
                Arrivals.Result result = arrivals.seal(component,
                        new Arrivals.Arrived(sighting.number(), artifacts, null, List.of(), Set.of(),
                                "in the observed " + row.kind() + " " + row.address(), ""));
                mapper.see(row.id(), sighting.number(), sighting.digest(), result.version(), null,
                        around.changes().now());
            });
        } catch (Refusal refused) {
            if (refused.kind() == Refusal.Kind.UNAVAILABLE) {
                throw refused;
            }
            around.changes().run(() -> {
                mapper.see(row.id(), sighting.number(), sighting.digest(), null,
                        cut(String.valueOf(refused.getMessage())), around.changes().now());
                around.changes()
                        .record(AuditTrail.Entry
                                .of("paseo", "arrival refused", component.name() + " " + sighting.number())
                                .because(cut(String.valueOf(refused.getMessage()))));
                around.changes().publish("trigger", component.name());
            });
        }
    }

    private static String cut(String text) {
        return Shortened.to(text, 1000);
    }
}

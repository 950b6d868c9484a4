package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.PlaceSnapshot.Has;
import dev.paseo.core.deployment.PlaceSnapshot.Live;
import dev.paseo.core.deployment.PlaceSnapshot;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.DeploymentMapper.HostNowRow;
import dev.paseo.service.place.DeploymentMapper.Move;
import dev.paseo.service.place.DeploymentMapper.ReplacedRow;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Places as they are kept: one is loaded whole, under its lock, and of what was decided, what differs is saved. */
@Component
class PlaceRepository {

    private final DeploymentMapper mapper;
    private final Versions versions;
    private final Environments environments;
    private final Json json;

    PlaceRepository(DeploymentMapper mapper, Versions versions, Environments environments, Json json) {
        this.mapper = mapper;
        this.versions = versions;
        this.environments = environments;
        this.json = json;
    }

    /**
     * A place as it was loaded, or as it was saved.
     *
     * @param rows  the rows of its deployments, by their number
     * @param hosts the numbers of its hosts, by their names
     */
    record LoadedPlace(Place place, PlaceSnapshot snapshot, Map<Long, Deployment> rows, Map<String, Long> hosts) {

        Deployment row(long deployment) {
            return Objects.requireNonNull(rows.get(deployment));
        }
    }

    /** Until the end of the transaction. */
    void lock(long place) {
        mapper.lock(place);
    }

    Place place(long id) {
        return environments.placeById(id);
    }

    /** The deployments there that count: what is open, and what is live. */
    List<Deployment> open(long place) {
        return mapper.open(place);
    }

    /** Those that have not begun, of versions that were blocked. */
    List<Long> aheadAndBlocked(long place) {
        return mapper.aheadAndBlocked(place);
    }

    /** When somebody has to look at it again; empty where nothing there waits for a time. */
    void wakeAt(long place, Optional<Instant> when) {
        mapper.wakeAt(place, when.orElse(null));
    }

    LoadedPlace load(Place place) {
        Map<Long, Deployment> rows = mapper.open(place.id()).stream()
                .collect(Collectors.toMap(Deployment::id, row -> row, (one, same) -> one, LinkedHashMap::new));
        List<HostNowRow> hosts = mapper.hostsNow(place.id());
        Map<String, Has> has = new LinkedHashMap<>();
        for (HostNowRow host : hosts) {
            if (host.lost() != null && host.lostSince() != null) {
                has.put(host.host(), new Has(host.lost(), false, host.lostSince()));
            } else if (host.has() != null && host.since() != null) {
                has.put(host.host(), new Has(host.has(), true, host.since()));
            }
        }
        PlaceSnapshot snapshot = new PlaceSnapshot(live(place, rows), rows.values().stream().map(this::state).toList(),
                replaced(rows), has);
        return new LoadedPlace(place, snapshot, rows,
                hosts.stream().collect(Collectors.toMap(HostNowRow::host, HostNowRow::id)));
    }

    /** What is live is said by the row: a deployment that is live again was kept as replaced. */
    DeploymentState state(Deployment row) {
        return json.read(row.state(), DeploymentState.class).to(row.status());
    }

    private Optional<Live> live(Place place, Map<Long, Deployment> rows) {
        return place.liveDeployment().map(rows::get).map(row -> versions.byId(row.versionId()))
                .map(version -> new Live(place.liveDeployment().orElseThrow(), version.number(),
                        version.line(), version.order(), place.liveSide()));
    }

    /** The version that is live there. */
    Optional<Versions.Version> version(Place place) {
        return place.liveDeployment().flatMap(mapper::byId).map(row -> versions.byId(row.versionId()));
    }

    private Map<Long, Live> replaced(Map<Long, Deployment> rows) {
        List<Long> replacing = rows.values().stream().filter(row -> row.replacesId() != null).map(Deployment::id)
                .toList();
        return replacing.isEmpty() ? Map.of() : mapper.replaced(replacing).stream().collect(Collectors.toMap(
                ReplacedRow::by,
                row -> new Live(row.deployment(), row.version(), row.line(), row.lineOrder(), Optional.empty())));
    }

    /** Whether nothing waits and nothing is under way there. */
    boolean isQuiet(long place) {
        return mapper.open(place).stream().noneMatch(row -> row.status().open());
    }

    /** Saves what differs; somebody else's change in between is a lost race. */
    LoadedPlace save(LoadedPlace before, PlaceSnapshot after, Instant now) {
        Map<Long, Deployment> rows = new LinkedHashMap<>(before.rows());
        for (DeploymentState deployment : after.open()) {
            if (!before.snapshot().deployment(deployment.id()).equals(Optional.of(deployment))) {
                Deployment row = rows.computeIfAbsent(deployment.id(), id -> mapper.byId(id).orElseThrow());
                rows.put(deployment.id(),
                        moved(row, deployment, Optional.ofNullable(after.replaces().get(deployment.id())), now));
            }
        }
        live(before, after, rows, now);
        before.hosts().forEach((name, host) -> {
            Has has = after.hosts().get(name);
            if (!Objects.equals(before.snapshot().hosts().get(name), has)) {
                has(before.place(), host, Optional.ofNullable(has), now);
            }
        });
        return new LoadedPlace(before.place(), after, rows, before.hosts());
    }

    private Deployment moved(Deployment row, DeploymentState deployment, Optional<Live> replaces, Instant now) {
        DeploymentStatus status = deployment.status();
        boolean live = status == DeploymentStatus.LIVE;
        Instant startedAt = row.startedAt() == null && (status.active() || live) ? now : row.startedAt();
        Move move = new Move(row.id(), row.revision(), row.status(), status, json.write(deployment),
                deployment.ending().orElse(null),
                replaces.map(Live::deployment).orElse(null), startedAt,
                live && row.liveAt() == null ? now : row.liveAt(), status.open() || live ? null : now);
        if (mapper.move(move) != 1) {
            throw new Transactions.LostRace("deployment " + row.id() + " moved on");
        }
        return row.moved(move);
    }

    /** What is live now; it is live since then, and not longer. */
    private void live(LoadedPlace before, PlaceSnapshot after, Map<Long, Deployment> rows, Instant now) {
        Optional<Long> was = before.snapshot().live().map(Live::deployment);
        Optional<Long> is = after.live().map(Live::deployment);
        if (before.snapshot().live().equals(after.live())) {
            return;
        }
        if (mapper.live(before.place().id(), was.orElse(null), is.orElse(null),
                after.live().flatMap(Live::side).orElse(null)) != 1) {
            throw new Transactions.LostRace("what is live in place " + before.place().id() + " moved on");
        }
        if (!was.equals(is)) {
            mapper.endStretch(before.place().id(), now);
            is.ifPresent(deployment -> {
                if (!rows.containsKey(deployment)) {
                    mapper.again(deployment);
                }
                mapper.beginStretch(deployment, now);
            });
        }
    }

    private void has(Place place, long host, Optional<Has> has, Instant now) {
        mapper.closeInterval(host, place.componentId(), now);
        mapper.endDoubt(place.id(), host);
        has.ifPresent(what -> {
            if (what.known()) {
                mapper.openInterval(host, place.componentId(), what.deployment(), now);
            } else {
                mapper.doubt(place.id(), host, what.deployment(), now);
            }
        });
    }
}

package dev.paseo.service.gate;

import dev.paseo.core.text.Word;
import dev.paseo.service.change.Changes;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.gate.WaitMapper.KeptRow;
import dev.paseo.service.notice.NoticeKind;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.outside.OutsideAsking;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Keeps what waits and for whom, each time a gate was judged, and tells those who are asked. In the transaction under
 * way.
 */
@Component
public class WaitingGates {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm 'UTC'", Locale.ENGLISH)
            .withZone(ZoneOffset.UTC);

    /** How something waits; {@code kind}: {@code decision}, {@code checklist} or {@code time}. */
    public record WaitingFor(String kind, String name, String sentence, @Nullable Instant due, boolean nobody) {}

    /** Something that waits, as lists show it. */
    public record Waiting(Optional<Long> deployment, Optional<Long> passage, String component, String environment,
            String version, String kind, String name, String sentence,
            Instant since, Optional<Instant> due) {}

    /** What stands before a deployment, and whether it waits for the reader. */
    public record Stand(String name, boolean mine) {}

    private final WaitMapper mapper;
    private final Notices notices;
    private final OutsideAsking asking;
    private final Changes changes;

    WaitingGates(WaitMapper mapper, Notices notices, OutsideAsking asking, Changes changes) {
        this.mapper = mapper;
        this.notices = notices;
        this.asking = asking;
        this.changes = changes;
    }

    /** Notes how it stands at its gate now. */
    public void keep(Gates.AtGate at, Evaluation gate) {
        gate.unmet().ifPresentOrElse(unmet -> keep(at, gate, unmet), () -> gone(at.standing()));
    }

    private void keep(Gates.AtGate at, Evaluation gate, Evaluation.Unmet unmet) {
        if (at.standing().deployment() != null) {
            gate.outside().forEach(each -> asking.ask(at.standing().deployment(), each));
        }
        Set<String> all = new HashSet<>(unmet.people().deciders());
        all.addAll(unmet.people().tickers());
        WaitingFor kept = new WaitingFor(Word.of(unmet.what()), Shortened.to(unmet.name(), 300),
                Shortened.to(unmet.sentence(), 2000), unmet.due().orElse(null), unmet.nobody());
        tellVoided(at, gate);
        Optional<KeptRow> before = mapper.of(at.standing());
        Set<String> known = before.map(row -> Set.copyOf(mapper.people(row.id()))).orElse(Set.of());
        long id = before.map(KeptRow::id).orElseGet(() -> add(at, kept));
        before.ifPresent(row -> mapper.change(row.id(), kept));
        if (!known.equals(all)) {
            mapper.clear(id);
            all.forEach(person -> mapper.addPerson(id, person));
        }
        tell(at, kept, all.stream().filter(person -> !known.contains(person)).toList());
        if (kept.nobody() && before.filter(KeptRow::nobody).isEmpty()) {
            notices.tellAdministrators(Notices.Said.of(NoticeKind.NOBODY, at.place().component(),
                    what(at) + " waits for nobody", kept.sentence(), path(at.standing()), key(at.standing())));
        }
    }

    private long add(Gates.AtGate at, WaitingFor kept) {
        WaitMapper.NewWait row = new WaitMapper.NewWait(at, kept);
        mapper.add(row);
        return row.id;
    }

    private void tell(Gates.AtGate at, WaitingFor kept, List<String> newly) {
        String asks = kept.kind().equals("checklist") ? "Your checklist: " : "Your decision: ";
        String body = "What: " + at.version().component() + " " + at.version().number() + "\nWhere: "
                + (at.standing().leaves() ? "to leave " : "into ") + at.place().environment()
                + "\nNow there: " + at.live().map(live -> live.number()).orElse("nothing") + "\nAsked by: "
                + (at.requester().isEmpty() ? "the walk" : at.requester())
                + "\nStands at: " + kept.name() + ". " + kept.sentence()
                + (kept.due() == null ? "" : "\nUntil: " + TIME.format(kept.due()));
        notices.tell(newly, Notices.Said.of(NoticeKind.WAITS, at.place().component(), asks + what(at), body,
                path(at.standing()), key(at.standing()) + " " + at.requestedAt()));
    }

    /** That approvals no longer count is told, once, to those who gave them and to who asked. */
    private void tellVoided(Gates.AtGate at, Evaluation gate) {
        Set<String> told = new HashSet<>(gate.voided());
        if (told.isEmpty()) {
            return;
        }
        if (!at.requester().isEmpty()) {
            told.add(at.requester());
        }
        String why = gate.whyVoided().orElse("What was approved has changed.");
        notices.tell(told,
                Notices.Said.of(NoticeKind.VOIDED, at.place().component(), "No longer approved: " + what(at), why,
                        path(at.standing()), key(at.standing()) + " " + gate.digest()));
    }

    /** Those who are asked are reminded before it expires, when an eighth of the time is left. */
    @Scheduled(fixedDelay = 20_000)
    void remind() {
        changes.run(() -> mapper.expiring(changes.now())
                .forEach(row -> notices.tell(mapper.people(row.id()),
                        Notices.Said.of(NoticeKind.EXPIRES, row.component(),
                                row.component() + " " + row.version() + " in " + row.environment() + " waits until "
                                        + TIME.format(java.util.Objects.requireNonNull(row.due())),
                                row.sentence(),
                                row.deployment() != null ? "/deployments/" + row.deployment()
                                        : "/passages/" + row.passage(),
                                "wait " + row.id()))));
    }

    private static String what(Gates.AtGate at) {
        return at.version().component() + " " + at.version().number() + (at.standing().leaves() ? " in " : " into ")
                + at.place().environment();
    }

    private static String path(Gates.Standing standing) {
        return standing.leaves() ? "/passages/" + standing.passage() : "/deployments/" + standing.deployment();
    }

    private static String key(Gates.Standing standing) {
        return standing.leaves() ? "passage " + standing.passage() : "deployment " + standing.deployment();
    }

    /** It no longer stands at a gate. */
    public void gone(Gates.Standing standing) {
        mapper.gone(standing);
    }

    /** What waits for somebody, the most urgent first. */
    public List<Waiting> forPerson(long account, int limit) {
        return mapper.forPerson(account, limit).stream().map(WaitingGates::waiting).toList();
    }

    public int count(long account) {
        return mapper.count(account);
    }

    /** What waits and nobody may decide. */
    public List<Waiting> forNobody(int limit) {
        return mapper.forNobody(limit).stream().map(WaitingGates::waiting).toList();
    }

    private static Waiting waiting(WaitMapper.WaitRow row) {
        return new Waiting(Optional.ofNullable(row.deployment()), Optional.ofNullable(row.passage()), row.component(),
                row.environment(), row.version(), row.kind(), row.name(),
                row.sentence(), row.since(), Optional.ofNullable(row.due()));
    }

    public Optional<Stand> stand(long deployment, long account) {
        return mapper.stand(deployment, account).map(row -> new Stand(row.name(), row.mine()));
    }
}

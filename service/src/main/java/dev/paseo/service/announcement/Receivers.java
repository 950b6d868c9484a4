package dev.paseo.service.announcement;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.language.NearestName;
import dev.paseo.language.file.Names;
import dev.paseo.service.announcement.AnnouncementMapper.AttemptRow;
import dev.paseo.service.announcement.AnnouncementMapper.MessageRow;
import dev.paseo.service.announcement.AnnouncementMapper.ReceiverRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.database.Json;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.reach.Reach;
import dev.paseo.service.secret.Secrets;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Who is told what happens, and what became of each message. */
@Component
class Receivers {

    private static final int MOST = 50;

    /**
     * A receiver to be added.
     *
     * @param kinds      of events, by type without its version, such as {@code service.deployed}; none: all
     * @param components whose events; none: all
     */
    record ReceiverRequest(String name, String address, Optional<List<String>> kinds,
            Optional<List<String>> components) {}

    /** @param secret that messages are signed with, per Standard Webhooks; shown this once */
    record AddedReceiverView(String name, String secret) {}

    record ReceiverView(String name, String address, List<String> kinds, List<String> components, Instant createdAt,
            Optional<Instant> stoppedAt) {}

    record AttemptView(int number, Instant at, int millis, Optional<Integer> status, Optional<String> error) {}

    /** @param state {@code delivered}, {@code waiting} for another attempt, or {@code given up} */
    record MessageView(long id, String message, String type, String state, Instant createdAt, Optional<Instant> nextAt,
            List<AttemptView> attempts, String body) {}

    private final AnnouncementMapper mapper;
    private final Reach reach;
    private final Secrets secrets;
    private final Json json;
    private final Changes changes;

    Receivers(AnnouncementMapper mapper, Reach reach, Secrets secrets, Json json, Changes changes) {
        this.mapper = mapper;
        this.reach = reach;
        this.secrets = secrets;
        this.json = json;
        this.changes = changes;
    }

    List<ReceiverView> all() {
        return mapper.all().stream()
                .map(row -> new ReceiverView(row.name(), row.address(), json.read(row.kinds(), Announcements.WORDS),
                        json.read(row.components(), Announcements.WORDS), row.createdAt(),
                        Optional.ofNullable(row.stoppedAt())))
                .toList();
    }

    AddedReceiverView add(Person person, ReceiverRequest request) {
        check(request);
        byte[] key = new byte[24];
        new SecureRandom().nextBytes(key);
        String secret = "whsec_" + Base64.getEncoder().encodeToString(key);
        changes.run(() -> {
            if (mapper.named(request.name()).isPresent()) {
                throw Refusal.conflict("There is a receiver named " + request.name() + " already");
            }
            AnnouncementMapper.NewReceiver row = new AnnouncementMapper.NewReceiver(request.name(), request.address(),
                    json.write(request.kinds().orElse(List.of())),
                    json.write(request.components().orElse(List.of())), changes.now());
            mapper.add(row);
            secrets.set(Outgoing.secretName(row.id), secret, Secrets.Scope.of(0, 0), OptionalLong.of(person.id()));
            changes.record(AuditTrail.Entry.of(person.name(), "receiver added", request.name()).with("address",
                    request.address()));
        });
        return new AddedReceiverView(request.name(), secret);
    }

    private void check(ReceiverRequest request) {
        if (!Names.NAME.matcher(request.name()).matches()) {
            throw Refusal.invalid("/name", "A receiver's name has " + Names.NAME_WORDS);
        }
        if (!request.address().matches("https?://[A-Za-z0-9.-]+(:[0-9]{1,5})?(/[A-Za-z0-9._~/-]*)?")
                || request.address().length() > 500) {
            throw Refusal.invalid("/address",
                    "should be an address such as https://host/path; got “" + request.address() + "”");
        }
        reach.allow(Reach.Kind.RECEIVER, request.address());
        request.kinds().orElse(List.of()).stream().filter(kind -> !Announcements.KINDS.contains(kind)).findFirst()
                .ifPresent(kind -> {
                    throw Refusal.invalid("/kinds",
                            "There is no kind " + kind + NearestName.hint(kind, Announcements.KINDS) + "; there are "
                                    + String.join(", ", Announcements.KINDS));
                });
    }

    private ReceiverRow receiver(String name) {
        return mapper.named(name).orElseThrow(() -> Refusal.notFound("There is no receiver " + name
                + NearestName.hint(name, mapper.all().stream().map(ReceiverRow::name).toList())));
    }

    /** The newest messages, at most 50, with every attempt; {@code before}: the cursor of the next page. */
    List<MessageView> messages(String name, Optional<Long> before) {
        List<MessageRow> rows = mapper.messages(receiver(name).id(), before.orElse(Long.MAX_VALUE), MOST);
        Map<Long, List<AttemptRow>> attempts = rows.isEmpty() ? Map.of()
                : mapper.attempts(rows.stream().map(MessageRow::id).toList()).stream()
                        .collect(Collectors.groupingBy(AttemptRow::outgoingId));
        return rows.stream().map(row -> new MessageView(row.id(), row.message(), row.kind(),
                row.deliveredAt() != null ? "delivered" : row.gaveUpAt() != null ? "given up" : "waiting",
                row.createdAt(),
                row.deliveredAt() == null && row.gaveUpAt() == null ? Optional.of(row.dueAt()) : Optional.empty(),
                attempts.getOrDefault(row.id(), List.of()).stream()
                        .map(each -> new AttemptView(each.number(), each.at(), each.millis(),
                                Optional.ofNullable(each.status()), Optional.ofNullable(each.error())))
                        .toList(),
                row.body())).toList();
    }

    /** Sends a message again, whatever became of it; it is tried for another day. */
    void resend(Person person, String name, long id) {
        changes.run(() -> {
            if (mapper.resend(id, receiver(name).id(), changes.now()) == 0) {
                throw Refusal.notFound(name + " has no message " + id);
            }
            changes.record(
                    AuditTrail.Entry.of(person.name(), "message resent", name).with("message", Long.toString(id)));
        });
    }

    /** Stops sending events to a receiver; what was sent stays to be looked at. */
    void stop(Person person, String name) {
        changes.run(() -> {
            mapper.stop(receiver(name).id(), changes.now());
            changes.record(AuditTrail.Entry.of(person.name(), "receiver stopped", name));
        });
    }
}

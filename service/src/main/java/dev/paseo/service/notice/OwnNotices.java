package dev.paseo.service.notice;

import dev.paseo.core.access.Person;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.notice.NoticeKind.Delivery;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What the reader was told, and how the reader wants to be told. */
@Component
class OwnNotices {

    private static final int MOST = 100;

    record NoticeView(long id, String event, String component, String title, String body, String path, Instant at,
            boolean read) {}

    record NoticesView(int unread, List<NoticeView> notices) {}

    /** How soon the reader is told of an event: {@code now}, {@code hourly}, {@code daily} or {@code off}. */
    record ChoiceView(String event, String words, String console, String mail) {}

    /** What was chosen for all components, and for single ones, by their names. */
    record ChoicesView(List<ChoiceView> everywhere, Map<String, List<ChoiceView>> components) {}

    /** {@code component}: only what is told of this one; else of all for which nothing else was chosen. */
    record ChoiceRequest(String event, String channel, String delivery, Optional<String> component) {}

    record ReadRequest(long upTo) {}

    private final NoticeMapper mapper;
    private final Components components;
    private final ServiceClock clock;

    OwnNotices(NoticeMapper mapper, Components components, ServiceClock clock) {
        this.mapper = mapper;
        this.components = components;
        this.clock = clock;
    }

    /** The newest, at most 100. */
    NoticesView newest(Person person) {
        return new NoticesView(mapper.unread(person.id()),
                mapper.newest(person.id(), MOST).stream()
                        .map(row -> new NoticeView(row.id(), row.event(), row.component(), row.title(), row.body(),
                                row.path(), row.at(), row.readAt() != null))
                        .toList());
    }

    void read(Person person, ReadRequest request) {
        mapper.read(person.id(), request.upTo(), clock.now());
    }

    ChoicesView choices(Person person) {
        List<NoticeMapper.ChoiceRow> rows = mapper.choices(person.id());
        Map<String, List<ChoiceView>> components = new LinkedHashMap<>();
        rows.stream().map(NoticeMapper.ChoiceRow::component).filter(name -> !name.isEmpty()).distinct()
                .forEach(name -> components.put(name, choices(rows, name)));
        return new ChoicesView(choices(rows, ""), components);
    }

    private static List<ChoiceView> choices(List<NoticeMapper.ChoiceRow> rows, String component) {
        return Arrays.stream(NoticeKind.values()).map(event -> {
            Map<String, Delivery> deliveries = Notices.deliveries(rows, event, component);
            return new ChoiceView(event.word(), event.words(), deliveries.get(Notices.CONSOLE).word(),
                    deliveries.get(Notices.MAIL).word());
        }).toList();
    }

    void choose(Person person, ChoiceRequest request) {
        if (Arrays.stream(NoticeKind.values()).noneMatch(event -> event.word().equals(request.event()))) {
            throw Refusal.invalid("/event",
                    "should be one of "
                            + String.join(", ", Arrays.stream(NoticeKind.values()).map(NoticeKind::word).toList()));
        }
        if (!List.of(Notices.CONSOLE, Notices.MAIL).contains(request.channel())) {
            throw Refusal.invalid("/channel", "should be console or mail");
        }
        Optional<Delivery> delivery = Arrays.stream(Delivery.values())
                .filter(each -> each.word().equals(request.delivery().toLowerCase(Locale.ROOT))).findFirst();
        if (delivery.isEmpty() || request.channel().equals(Notices.CONSOLE) && delivery.get() != Delivery.NOW
                && delivery.get() != Delivery.OFF) {
            throw Refusal.invalid("/delivery",
                    "should be now or off" + (request.channel().equals(Notices.MAIL) ? ", hourly or daily" : ""));
        }
        request.component().ifPresent(components::named);
        mapper.choose(person.id(), request.event(), request.channel(), request.component().orElse(""),
                delivery.get().word());
    }

    /** Drops your own choice for one component: you are told of it as of all others. */
    void asElsewhere(Person person, String component) {
        mapper.asElsewhere(person.id(), component);
    }
}

package dev.paseo.service.livestate;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.audit.Guarded;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What is live in places that stay, and on which side, as the trail states it; by the place's number. */
@Component
public class LiveStates implements Guarded {

    private static final String KIND = "live";

    private final LiveMapper mapper;

    LiveStates(LiveMapper mapper) {
        this.mapper = mapper;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Map<String, String> states() {
        return mapper.whatIsLive(null).stream()
                .collect(Collectors.toMap(row -> subject(row.place()), LiveMapper.LiveRow::text));
    }

    private static String subject(long place) {
        return KIND + " in place " + place;
    }

    /** The entry, stating what is live there now. */
    public AuditTrail.Entry into(AuditTrail.Entry entry, long place) {
        Optional<LiveMapper.LiveRow> now = mapper.whatIsLive(place).stream().findFirst();
        return now.map(row -> entry.stating(subject(place), row.text())).orElseGet(() -> entry.gone(subject(place)));
    }
}
